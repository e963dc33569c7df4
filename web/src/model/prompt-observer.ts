/** An observer of sizes that tells at once. */
import { flushSync } from 'react-dom';

/** Tells how large what it observes is at once, not only when the next frame is drawn: while the page is being set up that can be long after. */
export class PromptObserver extends ResizeObserver {
  constructor(private readonly tell: ResizeObserverCallback) {
    super(tell);
  }
  override observe(target: Element, options?: ResizeObserverOptions): void {
    super.observe(target, options);
    queueMicrotask(() => flushSync(() => this.tell([], this)));
  }
}
