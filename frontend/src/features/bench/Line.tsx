import type { ReactNode } from "react";

type Props = {
  /** A quiet word for what the line is about. */
  name: string;
  children: ReactNode;
  /** What the teacher has to know of it, under the line. */
  warnings?: ReactNode;
};

/** A line of a drill: what it is about, its words, and what is to be known of them. */
export function Line({ name, children, warnings }: Props) {
  return (
    <div className="clause line">
      <span className="line-name">{name}</span>
      <div className="min-w-0">
        <p>{children}</p>
        {warnings}
      </div>
    </div>
  );
}
