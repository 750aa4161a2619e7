import { BriefField } from "./BriefField";
import { typedCount } from "./typedCount";

type Props = {
  label: string;
  field: string;
  value: number;
  hint?: string;
  onChange: (count: number) => void;
};

/** A whole number that is typed. */
export function CountField({ value, onChange, ...word }: Props) {
  return (
    <BriefField {...word} numeric value={String(value)} onChange={(text) => onChange(typedCount(text))} />
  );
}
