import { chromium } from 'playwright-core';
const [,, out, width='1280', height='800', scheme='light', ...steps] = process.argv;
const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
const p = await b.newPage({ viewport: { width: +width, height: +height }, colorScheme: scheme });
p.on('console', m => m.type()==='error' && console.log('console:', m.text().slice(0,300)));
p.on('pageerror', e => console.log('pageerror:', String(e).slice(0,300)));
await p.goto('http://127.0.0.1:4399/sign-in');
await p.getByLabel(/mail/i).fill('mara@marram-studio.example');
await p.getByLabel('Password', { exact: true }).fill('marram-demo');
await p.keyboard.press('Enter');
await p.waitForURL(u => !u.pathname.includes('sign-in'));
for (const s of steps) { const [k, ...r] = s.split('='); const v = r.join('=');
 if (k==='go') { await p.goto('http://127.0.0.1:4399'+v); await p.waitForLoadState('networkidle').catch(()=>{}); await p.waitForTimeout(900);} 
 if (k==='click') { await p.locator(v).first().click(); await p.waitForTimeout(700);} 
 if (k==='text') { await p.getByText(v).first().click(); await p.waitForTimeout(700);} 
 if (k==='role') { const [role,name]=v.split('|'); await p.getByRole(role,{name}).first().click(); await p.waitForTimeout(700);} 
 if (k==='fill') { const [l,t]=v.split('|'); await p.getByRole('textbox',{name:l}).first().fill(t); await p.waitForTimeout(500);} 
 if (k==='key') { await p.keyboard.press(v); await p.waitForTimeout(500);} 
}
await p.screenshot({ path: out }); await b.close();
