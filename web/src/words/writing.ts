import { createElement, Fragment, type ReactNode } from "react";

// What messages are written with.

type Forms = { [form: string]: (() => unknown) | undefined };

// plurals chooses a form by the plural rules of a language (CLDR).
export function plurals(language: string) {
  const rules = new Intl.PluralRules(language);
  return (n: number, forms: Forms) => (forms[`=${n}`] ?? forms[rules.select(n)] ?? forms.other)?.();
}

// select chooses a form by a word.
export const select = (word: string, forms: Forms) => (forms[word] ?? forms.other)?.();

// around puts a part of a message into what stands around it.
export const around = (put: (text: ReactNode) => ReactNode, parts: ReactNode[]) =>
  put(createElement(Fragment, null, ...parts));
