import { Works } from '../e2e/support/works';
const w: any = await (Works as any).open(); await w.renew(); console.log(w.url); setInterval(() => {}, 1000);
