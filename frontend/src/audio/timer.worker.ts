/** Beats time off the main thread, so that a busy screen holds nothing up. */
let timer: ReturnType<typeof setInterval> | undefined;

self.onmessage = (event: MessageEvent<number | null>) => {
  clearInterval(timer);
  if (event.data !== null) timer = setInterval(() => self.postMessage(0), event.data);
};
