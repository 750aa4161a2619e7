import { type ReactNode, useEffect, useRef } from "react";

type Props = {
  title: string;
  onClose: () => void;
  children: ReactNode;
  /** A drawer stands at the right edge, a dialog in the middle. */
  side?: boolean;
};

/** A native modal dialog: Esc closes it, the focus stays inside and comes back. */
export function Dialog({ title, onClose, children, side = false }: Props) {
  const box = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    const dialog = box.current;
    if (dialog && !dialog.open) dialog.showModal();
    return () => dialog?.close();
  }, []);
  const place = side ? "dialog-side" : "dialog-middle";
  return (
    <dialog ref={box} className={`dialog ${place}`} aria-label={title} onClose={onClose} onCancel={onClose}>
      <div className="flex items-baseline justify-between gap-4 mb-3">
        <h2 className="text-xl font-bold">{title}</h2>
        <button type="button" className="button button-quiet" onClick={onClose}>
          Close
        </button>
      </div>
      {children}
    </dialog>
  );
}
