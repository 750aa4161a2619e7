import type { Drill, Reading } from "../../api/client";

type Props = {
  warnings: Reading["warnings"];
  drill: Drill;
  onChange: (drill: Drill) => void;
};

/** What the teacher has to know about a drill, with the way out where there is one. */
export function Warnings({ warnings, drill, onChange }: Props) {
  const mends = mendsOf(drill);
  return warnings.map(({ sentence, of }) => (
    <div key={sentence} className="bg-care text-care-text rounded-lg px-3 py-2 my-1 text-base leading-normal">
      <p className="font-semibold">{sentence}</p>
      <div className="flex flex-wrap gap-2 mt-1">
        {(of === "range" ? mends : []).map(([name, mended]) => (
          <button key={name} type="button" className="button button-small" onClick={() => onChange(mended)}>
            {name}
          </button>
        ))}
      </div>
    </div>
  ));
}

function mendsOf(drill: Drill): [string, Drill][] {
  const fold: [string, Drill] = ["Fold it into the range", { ...drill, folded: true }];
  return [
    ...shorter(drill.material).map(([name, material]): [string, Drill] => [name, { ...drill, material }]),
    fold,
  ];
}

function shorter(material: Drill["material"]): [string, Drill["material"]][] {
  if (material.kind === "scale_run" && material.octaves !== "one_repeated") {
    const mends: [string, Drill["material"]][] = [
      ["Take one octave repeated", { ...material, octaves: "one_repeated" }],
    ];
    if (material.octaves !== 1) mends.push(["Take one octave", { ...material, octaves: 1 }]);
    return mends;
  }
  if ((material.kind === "arpeggio" || material.kind === "sequence") && material.octaves !== 1)
    return [["Take one octave", { ...material, octaves: 1 }]];
  return [];
}
