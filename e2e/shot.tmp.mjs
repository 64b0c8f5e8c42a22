import { chromium } from 'playwright-core'

const [, , out = '/tmp/a.png', url = 'http://localhost:4820/', script = ''] = process.argv
const b = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--use-gl=swiftshader',
    '--enable-unsafe-swiftshader',
  ],
})
const p = await b.newPage({ viewport: { width: 1280, height: 800 } })
p.on('console', (m) => console.log('console', m.type(), m.text()))
p.on('pageerror', (e) => console.log('pageerror', e.message))
p.on('requestfailed', (r) => console.log('failed', r.url(), r.failure()?.errorText))
await p.goto(url)
await p.waitForTimeout(6000)
if (script) await new Function('p', `return (async()=>{${script}})()`)(p)
await p.screenshot({ path: out })
await b.close()
