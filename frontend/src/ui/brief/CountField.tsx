import { BriefField } from "./BriefField";
import { typedCount } from "./typedCount";

type Props = {
  label: string;
  field: string;
  value: number;
  hint?: string;
  /** Whether it may lie below 0. */
  signed?: boolean;
  onChange: (count: number) => void;
};

/** A whole number that is typed. */
export function CountField({ value, signed, onChange, ...word }: Props) {
  return (
    <BriefField
      {...word}
      numeric
      value={String(value)}
      onChange={(text) => onChange(typedCount(text, signed))}
    />
  );
}
