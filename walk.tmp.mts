import { chromium } from 'playwright';
const b=await chromium.launch({executablePath:'/usr/bin/chromium-headless-shell',args:['--no-sandbox']});
const c=await b.newContext({viewport:{width:390,height:844},hasTouch:true}); const p=await c.newPage();
p.on('pageerror',e=>console.log('PAGEERROR',e.message)); p.on('response',r=>{if(r.status()>=500)console.log('5xx',r.url())});
await p.goto('http://localhost:4390/'); await p.getByLabel(/name/i).first().fill('Ada'); await p.getByLabel(/passphrase/i).first().fill('cold tires at noon'); await p.getByRole('button',{name:/sign in/i}).click(); await p.waitForTimeout(1500);
await p.goto('http://localhost:4390/book-in'); await p.waitForTimeout(1500); console.log(await p.locator('main').innerText().then(t=>t.slice(0,600)));
await p.screenshot({path:'/tmp/shot/1.png'});
await b.close();
