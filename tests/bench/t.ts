import { withApplication, writingKeystroke } from './pages'
await withApplication(async (page) => { await writingKeystroke(page, (a, b, c) => console.log(a, b, c)) })
