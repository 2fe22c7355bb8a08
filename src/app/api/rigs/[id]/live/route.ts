import { answer } from '@/server/answers';
import { listening } from '@/server/live/listening';

export const dynamic = 'force-dynamic';

const BEAT_MS = 15_000;

/** The live line of a rig as server-sent events: new revisions, who is there, whether it was put away. */
export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(request, null, async () => {
    const { id } = await params;
    let stop = () => undefined as void;
    const line = new ReadableStream<Uint8Array>({
      start(out) {
        const text = new TextEncoder();
        const say = (words: string) => {
          try {
            out.enqueue(text.encode(words));
          } catch {
            stop();
          }
        };
        const leave = listening().on(id, (heard) => say(`data: ${JSON.stringify(heard)}\n\n`));
        const beat = setInterval(() => say(': here\n\n'), BEAT_MS);
        stop = () => {
          leave();
          clearInterval(beat);
        };
        request.signal.addEventListener('abort', stop);
        say('retry: 1000\n\n');
      },
      cancel: () => stop(),
    });
    return new Response(line, {
      headers: {
        'content-type': 'text/event-stream',
        'cache-control': 'no-store, no-transform',
        'x-accel-buffering': 'no',
      },
    });
  });
