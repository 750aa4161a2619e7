import { useRef } from "react";

type Props = {
  /** What stands on the button; and what the file is, for who listens. */
  children: string;
  label: string;
  accept: string;
  className?: string;
  disabled?: boolean;
  onFile: (file: File) => void;
};

/** A button that asks for a file; the same file may be chosen twice. */
export function FileButton({ children, label, accept, className = "", disabled = false, onFile }: Props) {
  const picker = useRef<HTMLInputElement>(null);
  return (
    <>
      <button
        type="button"
        className={`button ${className}`}
        disabled={disabled}
        onClick={() => picker.current?.click()}
      >
        {children}
      </button>
      <input
        ref={picker}
        type="file"
        accept={accept}
        className="sr-only"
        tabIndex={-1}
        aria-label={label}
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) onFile(file);
          event.target.value = "";
        }}
      />
    </>
  );
}
