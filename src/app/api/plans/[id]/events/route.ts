import { PLANS } from '@/contract/plans';
import { serve } from '@/server/http';
import { shop } from '@/server/shop';

export const dynamic = 'force-dynamic';

/** The plan's state as server-sent events, at every change until it ends. Closing the page leaves the plan running. */
export const GET = serve(PLANS.events, async ({ at: { id }, req }) => {
  const { plans } = await shop();
  // One that is not there is answered with 404 before anything is listened to.
  const first = await plans.state(id);
  const encoder = new TextEncoder();
  let stop = () => {};
  const stream = new ReadableStream({
    start(controller) {
      let open = true;
      const send = (state: typeof first) => {
        if (!open) return;
        controller.enqueue(encoder.encode(`data: ${JSON.stringify(state)}\n\n`));
        if (state.status === 'queued' || state.status === 'running') return;
        stop();
        controller.close();
      };
      // A plan that is taken off while it is watched ends the stream; the page asks again and is told.
      const fail = (e: unknown) => {
        if (!open) return;
        stop();
        controller.error(e);
      };
      const unlisten = plans.listen(id, () => void plans.state(id).then(send).catch(fail));
      stop = () => {
        open = false;
        unlisten();
      };
      req.signal.addEventListener('abort', stop);
      // What has changed since `first` is read anew, now that changes are listened to.
      void plans.state(id).then(send).catch(fail);
    },
    cancel: () => stop(),
  });
  return new Response(stream, {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-cache, no-transform' },
  });
});
