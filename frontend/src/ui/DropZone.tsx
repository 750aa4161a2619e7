import { type ReactNode, useState } from "react";

type Props = { className?: string; onFiles: (files: FileList) => void; children: ReactNode };

/** A place that files can be dropped on; whatever is dropped can be chosen as well. */
export function DropZone({ className = "", onFiles, children }: Props) {
  const [isOver, setOver] = useState(false);
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: what is dropped can be chosen as well
    <div
      className={`${className} ${isOver ? "outline-2 outline-primary" : ""}`}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        event.preventDefault();
        setOver(false);
        onFiles(event.dataTransfer.files);
      }}
    >
      {children}
    </div>
  );
}
