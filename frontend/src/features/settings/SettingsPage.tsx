import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Choices, files, type Schemas } from "../../api/client";
import { choicesQuery, queryClient, settingsQuery } from "../../api/queries";
import { AmountField } from "../../ui/brief/AmountField";
import { Brief } from "../../ui/brief/Brief";
import { BriefField } from "../../ui/brief/BriefField";
import { BriefSelect } from "../../ui/brief/BriefSelect";
import { CountField } from "../../ui/brief/CountField";
import { Loading } from "../../ui/Loading";
import { Problem } from "../../ui/Problem";
import { refusalOf } from "../../ui/refusal";
import { DataAndDevices } from "./DataAndDevices";
import { OwnLines } from "./OwnLines";

type Settings = Schemas["StudioSettings"];

const INSTRUMENTS_HINT =
  "A line for each: its name, a colon, wind, strings or keys, and what is written for it. whistle in D: wind, D4 to B5, " +
  "first year D4 to D5, sounds +12, break B4 C5, breath 8. tenor guitar: strings C3 G3 D4 A4, frets 19.";

/** Where schools differ, which one this teacher begins with; the data; this browser. */
export function SettingsPage() {
  const settings = useQuery(settingsQuery);
  const choices = useQuery(choicesQuery);
  const failed = settings.error ?? choices.error;
  if (failed) return <Problem error={failed} onRetry={() => window.location.reload()} />;
  if (!settings.data || !choices.data) return <Loading what="the settings" />;
  return (
    <div>
      <h1 className="text-2xl sm:text-3xl font-extrabold mb-3">Settings</h1>
      <Words settings={settings.data.settings} choices={choices.data} />
      <DataAndDevices data={settings.data.data} backup={files.backup} />
    </div>
  );
}

function Words({ settings: kept, choices }: { settings: Settings; choices: Choices }) {
  const [settings, setSettings] = useState(kept);
  const save = useMutation({
    mutationFn: (wanted: Settings) => api.keepSettings(wanted),
    onSuccess: () => {
      void queryClient.invalidateQueries({ queryKey: ["settings"] });
      void queryClient.invalidateQueries({ queryKey: ["choices"] });
      void queryClient.invalidateQueries({ queryKey: ["sums"] });
      void queryClient.invalidateQueries({ queryKey: ["performance"] });
    },
  });
  const ofInstruments = refusalOf(save.error)?.field?.includes("instruments") ?? false;
  const set = (changed: Partial<Settings>) => {
    const wanted = { ...settings, ...changed };
    setSettings(wanted);
    save.mutate(wanted);
  };
  return (
    <div className="card-plain mb-4">
      <h2>Schools, to begin with</h2>
      <Brief label="Settings" refusal={ofInstruments ? null : refusalOf(save.error)}>
        New climbs are set in{" "}
        <BriefSelect
          label="settings of the metronome"
          field="settings.metronome"
          value={settings.metronome}
          choices={choices.settings}
          onChange={(value) => set({ metronome: value as Settings["metronome"] })}
        />
        , move by{" "}
        <BriefSelect
          label="moving rule"
          field="settings.moving"
          value={settings.moving}
          choices={choices.movings}
          onChange={(value) => set({ moving: value as Settings["moving"] })}
        />{" "}
        and are held to evenness{" "}
        <BriefSelect
          label="evenness"
          field="settings.evenness"
          value={settings.evenness}
          choices={choices.evenness}
          onChange={(value) => set({ evenness: value as Settings["evenness"] })}
        />
        . New drills are counted{" "}
        <BriefSelect
          label="count words"
          field="settings.counting"
          value={settings.counting.system}
          choices={choices.countings}
          onChange={(value) =>
            set({ counting: { ...settings.counting, system: value as Settings["counting"]["system"] } })
          }
        />
        {settings.counting.system === "own" && (
          <>
            :{" "}
            <BriefField
              label="own count words"
              field="settings.counting"
              value={settings.counting.own}
              hint="For each division its words; # is the number of the beat: 2: # und; 3: # o la."
              long
              onChange={(own) => set({ counting: { ...settings.counting, system: "own", own } })}
            />
          </>
        )}
        {choices.languages.length > 0 && (
          <>
            , words of your own spoken in{" "}
            <BriefSelect
              label="language of own words"
              field="language"
              value={settings.language}
              choices={choices.languages}
              onChange={(language) => set({ language })}
            />
          </>
        )}
        . The inner pulse stays near{" "}
        <AmountField
          label="middle rate a minute"
          field="settings.middle_rate"
          what="number"
          exact={settings.middle_rate}
          hint="40 to 300 a minute: 140 is near a walking pace twice over."
          onChange={(middle_rate) => set({ middle_rate })}
        />{" "}
        a minute. More than{" "}
        <CountField
          label="per cent more notes a week"
          field="settings.most_more"
          value={settings.most_more}
          hint="0 to 100; more is flagged, not forbidden."
          onChange={(most_more) => set({ most_more })}
        />{" "}
        % more notes a week are flagged. On the stand:{" "}
        <BriefSelect
          label="sound or sums first"
          field="settings.sound_first"
          value={settings.sound_first ? "yes" : "no"}
          choices={choices.sound_firsts}
          onChange={(value) => set({ sound_first: value === "yes" })}
        />
        . Paper is{" "}
        <BriefSelect
          label="paper"
          field="settings.paper"
          value={settings.paper}
          choices={choices.papers}
          onChange={(value) => set({ paper: value as Settings["paper"] })}
        />
        .
      </Brief>
      <OwnLines
        key={kept.glossary}
        title="Words that go home, in your own"
        hint="A line for each: the word, a colon, what it means. Those that a recap uses stand under it."
        keep="Keep these words"
        rows={10}
        lines={settings.glossary}
        error={ofInstruments ? null : save.error}
        onKeep={(glossary) => set({ glossary })}
      />
      <OwnLines
        key={`instruments ${kept.instruments}`}
        title="Instruments of your own"
        hint={INSTRUMENTS_HINT}
        keep="Keep these instruments"
        rows={5}
        lines={settings.instruments}
        error={ofInstruments ? save.error : null}
        onKeep={(instruments) => set({ instruments })}
      />
      <p className="text-soft text-sm" role="status">
        {save.isPending ? "Being kept …" : save.isSuccess ? "Kept." : "What is chosen is kept at once."}
      </p>
    </div>
  );
}
