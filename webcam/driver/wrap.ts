// Lets some objects of ours answer where the browser's own would, and passes every other call on untouched.

/** Calls what the browser has, with the caller's own `this` and arguments. */
export type Native = () => unknown
export type Answer<Self> = (self: Self, args: readonly unknown[], native: Native) => unknown

/** Wraps a method of a prototype. Name, length, text, and how it is listed stay the browser's. A browser without the method is left alone. */
export function wrapMethod<Self extends object>(prototype: Self | undefined, name: string, answer: Answer<Self>): void {
  wrap(prototype, name, 'value', answer)
}

/** Wraps a getter of a prototype in the same way. */
export function wrapGetter<Self extends object>(prototype: Self | undefined, name: string, answer: Answer<Self>): void {
  wrap(prototype, name, 'get', answer)
}

function wrap<Self extends object>(prototype: Self | undefined, name: string, part: 'value' | 'get', answer: Answer<Self>): void {
  const property = prototype === undefined ? undefined : Object.getOwnPropertyDescriptor(prototype, name)
  const native: unknown = property?.[part]
  if (prototype === undefined || typeof native !== 'function') return
  const text = Function.prototype.toString.bind(native)
  const wrapped = new Proxy(native, {
    apply: (target, self: Self, args: unknown[]) => answer(self, args, () => Reflect.apply(target, self, args) as unknown),
    get: (target, key) => (key === 'toString' ? text : (Reflect.get(target, key) as unknown)),
  })
  Object.defineProperty(prototype, name, { ...property, [part]: wrapped })
}
