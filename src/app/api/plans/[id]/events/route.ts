import { route } from '@/server/http';
import { shop } from '@/server/shop';

export const dynamic = 'force-dynamic';

/** The plan's state as server-sent events, at every change until it ends. Closing the page leaves the plan running. */
export const GET = route<{ id: string }>(async (req, { id }) => {
  const { plans } = await shop();
  const encoder = new TextEncoder();
  let stop = () => {};
  const stream = new ReadableStream({
    start(controller) {
      let open = true;
      const send = async () => {
        const state = await plans.state(id);
        if (!open) return;
        controller.enqueue(encoder.encode(`data: ${JSON.stringify(state)}\n\n`));
        if (state.status !== 'queued' && state.status !== 'running') {
          stop();
          controller.close();
        }
      };
      const unlisten = plans.listen(id, () => void send());
      stop = () => {
        open = false;
        unlisten();
      };
      req.signal.addEventListener('abort', stop);
      void send();
    },
    cancel: () => stop(),
  });
  return new Response(stream, {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-cache, no-transform' },
  });
});
