/** What takes keys while it is there: a place, a dialog over it, something within the dialog. */
export interface KeyScope {
  /** Takes a key by preventing what the browser would do with it. */
  readonly onKey: (event: KeyboardEvent) => void;
  /** Whether what lies below gets no keys meanwhile. */
  readonly modal: boolean;
  /** Whether it has keys before what they were pressed on. */
  readonly early: boolean;
}

/** The scopes that are there, one over the other: keys go to the uppermost first. */
export class KeyStack {
  private readonly scopes: KeyScope[] = [];

  /** Puts a scope on top; the answer takes it away again. */
  push(scope: KeyScope): () => void {
    this.scopes.push(scope);
    return () => {
      const at = this.scopes.indexOf(scope);
      if (at >= 0) this.scopes.splice(at, 1);
    };
  }

  /** Hands a key down until a scope has taken it, or lets nothing through. */
  handle(event: KeyboardEvent, early: boolean): void {
    for (const scope of [...this.scopes].reverse()) {
      if (event.defaultPrevented) return;
      if (scope.early === early) scope.onKey(event);
      if (scope.modal) return;
    }
  }
}
