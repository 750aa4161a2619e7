import { CountField } from "../../../ui/brief/CountField";
import type { PartProps } from "./part";

/** From which bar each layer is there. */
export function EnterWords({ drill: { enters }, choices, onChange }: PartProps) {
  return choices.entering.map((layer, index) => {
    const name = layer.value as keyof typeof enters;
    return (
      <span key={name}>
        {index > 0 && ", "}
        {layer.label} from bar{" "}
        <CountField
          label={`bar in which ${layer.label} enters`}
          field={`enters.${name}`}
          value={enters[name]}
          hint={`1 to 64. ${layer.why}`}
          onChange={(bar) => onChange({ enters: { ...enters, [name]: bar } }, "enters")}
        />
      </span>
    );
  });
}
