import { demoJobs } from '/work/main/demo/shop';
import { planJob } from '@/core/plan/pipeline';
import { localHost } from '@/core/kernels/host';
import { readSource } from '@/core/sources/inspect';
const jobs = demoJobs();
const which = process.argv.slice(2).map(Number);
for (const i of which) {
  const d = jobs[i];
  const job = d.job('0'.repeat(64));
  const t00 = performance.now();
  const plan = await planJob(job, async () => readSource(d.bytes, d.file), {
    host: localHost,
    progress() {},
    async stage(name, input, run) { const t0 = performance.now(); const result = await run(); console.log(name, ((performance.now()-t0)/1000).toFixed(2)); return { key: name, result }; },
  });
  const s = plan.summary;
  console.log(job.name, s.grid, 'total', ((performance.now()-t00)/1000).toFixed(2));
  for (const p of s.passes) console.log(p, 'ratio', p.seconds/ (p.cutLength/1800*60), 'blocks/mm', p.moves/p.cutLength, 'rapid share', p.rapidSeconds/p.seconds);
  for (const p of s.programs) console.log(p.file, p.text.length, p.seconds, 'vol', p.volume);
  for (const p of s.passes.filter(p=>p.kind==='rough')) console.log('rough ratio', p.seconds/ (s.programs[0].volume/(p.stepdown*p.stepover*1800/60)));
  console.log(s.findings, s.thinnest, s.deepest, s.leftShare);
}
console.log(process.memoryUsage().rss/1e6);
