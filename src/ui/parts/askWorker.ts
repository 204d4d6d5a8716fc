// Questions to a worker of the page: it is started with the first, and started again when it breaks.
type Numbered = { id: number };

/**
 * @param start - makes the worker. @param broken - the answer to what a broken worker was asked.
 * @returns what asks it; answers come in any order and carry the number of their question.
 */
export function makeAsker<Asked, Answer extends Numbered>(start: () => Worker, broken: (id: number) => Answer) {
  let worker: Worker | null = null;
  let count = 0;
  const asked = new Map<number, (answer: Answer) => void>();
  const open = () => {
    const started = start();
    started.addEventListener("message", ({ data }: MessageEvent<Answer>) => {
      asked.get(data.id)?.(data);
      asked.delete(data.id);
    });
    started.addEventListener("error", () => {
      started.terminate();
      worker = null;
      for (const [id, reply] of asked) reply(broken(id));
      asked.clear();
    });
    return started;
  };
  return (question: Asked): Promise<Answer> => {
    worker ??= open();
    const id = ++count;
    return new Promise((resolve) => {
      asked.set(id, resolve);
      worker!.postMessage({ ...question, id });
    });
  };
}
