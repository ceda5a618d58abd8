import { setResponseHeader } from 'h3'
import { answering } from '../../http/route'
import { refuse } from '../../http/refuse'

/** A page of the demo’s boatyard with a form inside it, to see how that is. Only with the demo’s data. */
export default answering(async event => {
  const { demo } = useRuntimeConfig()
  if (demo === '') refuse(404, 'not-found', 'There is nothing at this address.')
  setResponseHeader(event, 'content-type', 'text/html;charset=utf-8')
  return `<!doctype html>
<html lang="en">
  <head>
    <meta name="viewport" content="width=device-width, initial-scale=1" />
    <title>Wherry Reach Boatyard</title>
    <style nonce="${event.context.nonce ?? ''}">
      body { margin: 0 auto; max-width: 760px; padding: 24px 16px; font: 17px/1.5 Georgia, serif; color: #23323a }
      header, footer { border: solid #8fa7ad; border-width: 0 0 2px; padding-bottom: 8px }
      footer { border-width: 2px 0 0; padding: 8px 0 }
    </style>
  </head>
  <body>
    <header><h1>Wherry Reach Boatyard</h1><p>Moorings, winter berths and repairs since 1911.</p></header>
    <p>Tell us how the launch went; it takes a minute.</p>
    <script src="/embed.js" data-form="/f/demo_after_launch" data-title="After the launch"></script>
    <footer>Slip Lane 4, Wherry Reach</footer>
  </body>
</html>`
})
