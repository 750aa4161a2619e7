import { useMutation } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { api, type Drill } from "../api/client";
import { forgetWork } from "../api/queries";
import { useOnce } from "./useOnce";

/** Makes a drill of the server's own beginnings and opens it on the bench. */
export function useNewDrill() {
  const navigate = useNavigate();
  const once = useOnce();
  return useMutation({
    // What is left out here is filled in by the server.
    mutationFn: () => api.addDrill({ title: "New drill" } as Drill, once.key("new")),
    onSuccess: (kept) => {
      once.done();
      forgetWork();
      // Whoever begins a drill writes its first word next.
      void navigate(`/bench/${kept.id}`, { state: { isNew: true } });
    },
  });
}
