import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api } from "../../api/client";
import { forgetWork } from "../../api/queries";
import { Dialog } from "../../ui/Dialog";
import { Problem } from "../../ui/Problem";
import { useOnce } from "../../ui/useOnce";
import { FormField } from "../students/fields";

/** A new group: its name; who is in it is chosen on its page. */
export function NewGroup({ onClose }: { onClose: () => void }) {
  const navigate = useNavigate();
  const once = useOnce();
  const [name, setName] = useState("");
  const add = useMutation({
    mutationFn: () =>
      api.addGroup({ name, members: [], lesson_weekday: null, lesson_time: "" }, once.key(name)),
    onSuccess: (group) => {
      once.done();
      forgetWork();
      void navigate(`/groups/${group.id}`);
    },
  });
  return (
    <Dialog title="New group" onClose={onClose}>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          add.mutate();
        }}
      >
        <FormField
          label="Name"
          field="name"
          wrong={add.error ? "name" : ""}
          value={name}
          onChange={setName}
        />
        {add.isError && <Problem error={add.error} />}
        <div className="flex gap-2">
          <button type="submit" className="button button-first" disabled={add.isPending}>
            Add
          </button>
          <button type="button" className="button button-quiet" onClick={onClose}>
            Not now
          </button>
        </div>
      </form>
    </Dialog>
  );
}
