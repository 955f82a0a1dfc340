import { machineSchema } from '@/core/doc/machine';
import { body, route } from '@/server/http';
import { saveMachine } from '@/server/jobs';
import { shop } from '@/server/shop';

export const PUT = route(async (req) => {
  const machine = await body(req, machineSchema);
  await saveMachine((await shop()).db, machine);
  return Response.json(machine);
});
