import { chromium } from 'playwright'

const b = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--use-gl=angle',
    '--use-angle=swiftshader',
    '--enable-unsafe-swiftshader',
  ],
})
const p = await b.newPage({ viewport: { width: 1280, height: 800 }, colorScheme: process.env.SCHEME ?? 'dark' })
p.on('pageerror', (e) => console.log('ERR', e.message))
p.on('console', (m) => m.type() === 'error' && console.log('CON', m.text()))
const [, , name, url, ...acts] = process.argv
await p.goto(`http://localhost:4870${url}`)
for (const a of acts) {
  const [k, ...r] = a.split('=')
  const v = r.join('=')
  if (k === 'wait') await p.waitForTimeout(+v)
  else if (k === 'click') await p.getByRole('button', { name: v }).first().click()
  else if (k === 'press') await p.keyboard.press(v)
  else if (k === 'focus') await p.getByRole(v).first().focus()
  else if (k === 'fill') {
    const [l, t] = v.split('|')
    await p.getByLabel(l).first().fill(t)
  } else if (k === 'text') console.log(await p.locator(v).allInnerTexts())
}
await p.screenshot({ path: `/tmp/${name}.png` })
console.log(p.url())
await b.close()
