import { mkdirSync, writeFileSync } from 'node:fs'
import { z } from 'zod'
import { Form } from '../core/form/definition'
import { ProveOutput } from '../cli/output'
import { CHECKS } from '../core/prove/checks'

// Writes what docs/ takes from the code: the JSON Schemas of the definition and of what the prover prints, and the list of findings.
mkdirSync('docs', { recursive: true })
writeFileSync('docs/form.schema.json', `${JSON.stringify(z.toJSONSchema(Form, { io: 'input' }), null, 2)}\n`)
writeFileSync('docs/prove.schema.json', `${JSON.stringify(z.toJSONSchema(ProveOutput), null, 2)}\n`)
const entries = CHECKS.map(
  c =>
    `## ${c.code}\n\n*${c.severity}.* ${c.about}\n\nRaised by:\n\n\`\`\`json\n${JSON.stringify(c.raises.sections)}\n\`\`\`\n\nNot raised by:\n\n\`\`\`json\n${JSON.stringify(c.spares.sections)}\n\`\`\`\n`,
)
writeFileSync(
  'docs/findings.md',
  `# Findings\n\nMade from the checks in \`core/prove/checks\`; each example is also a test. The examples show the sections of a form.\n\nBesides these there is \`undecided\` (risk): a goal that met the solver's limit, or rests on what [proof.md](proof.md) lists as left open, and for which no example was found.\n\n${entries.join('\n')}`,
)
