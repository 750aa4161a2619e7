import { api } from "../../api/client";
import { Problem } from "../../ui/Problem";
import { SayIt } from "../../ui/SayIt";
import { useMadeDrill } from "../../ui/useMadeDrill";
import { Fitting } from "./Fitting";

/** Makes a drill of a line of words, and opens it. */
export function SayDrill() {
  const add = useMadeDrill(api.addDrill);
  return (
    <>
      <SayIt
        label="Say it"
        placeholder="D dorian two octaves triplets then sixteenths 84"
        drill={null}
        onSaid={(said) => add.mutate(said.drill)}
        also={(text) => <Fitting text={text} />}
      />
      {add.isError && <Problem error={add.error} />}
    </>
  );
}
