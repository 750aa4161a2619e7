import { useMutation } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { forgetWork } from "../api/queries";
import { useOnce } from "./useOnce";

/**
 * Makes a drill in one press, once however often the press arrives, and opens it.
 *
 * @param make - What makes it of what is asked; the key says that it is the same press.
 * @param to - Where it is opened; where it is made, unless said.
 * @param state - What that page is told.
 */
export function useMadeDrill<Asked>(
  make: (asked: Asked, key: string) => Promise<{ id: number }>,
  to = (id: number) => `/bench/${id}`,
  state?: object,
) {
  const navigate = useNavigate();
  const once = useOnce();
  return useMutation({
    mutationFn: (asked: Asked) => make(asked, once.key(asked)),
    onSuccess: (kept) => {
      once.done();
      forgetWork();
      void navigate(to(kept.id), { state });
    },
  });
}
