import type { ReactNode } from 'react';
import { Link } from 'react-router';

/** A page that says why a garden cannot be shown, and what can be done. */
export function Notice({ title, text, children }: { title: string; text: string; children?: ReactNode }) {
  return (
    <main className="mx-auto flex max-w-[760px] flex-col items-start gap-4 px-5 py-16">
      <h1>{title}</h1>
      <p className="wrap-anywhere">{text}</p>
      {children}
      <Link to="/" className="underline underline-offset-4">
        All gardens
      </Link>
    </main>
  );
}
