import { storeToRefs } from 'pinia'
import { useChosen } from './script/useChosen'
import { useIndenting } from './script/useIndenting'
import { useScriptClipboard } from './script/useScriptClipboard'
import { useScriptMoves } from './script/useScriptMoves'
import { useScriptStructure } from './script/useScriptStructure'

/** What can be done with the lines of the script; each is one undoable step. */
export const useScript = () => ({
  ...storeToRefs(useScriptNotices()),
  ...useChosen(),
  ...useScriptClipboard(),
  ...useScriptMoves(),
  ...useIndenting(),
  ...useScriptStructure(),
})
