import { useMutation } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { api, type Drill } from "../../api/client";
import { forgetWork } from "../../api/queries";
import { Problem } from "../../ui/Problem";
import { SayIt } from "../../ui/SayIt";
import { useOnce } from "../../ui/useOnce";
import { Fitting } from "./Fitting";

/** Makes a drill of a line of words, and opens it. */
export function SayDrill() {
  const navigate = useNavigate();
  const once = useOnce();
  const add = useMutation({
    mutationFn: (drill: Drill) => api.addDrill(drill, once.key(drill)),
    onSuccess: (kept) => {
      once.done();
      forgetWork();
      void navigate(`/bench/${kept.id}`);
    },
  });
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
