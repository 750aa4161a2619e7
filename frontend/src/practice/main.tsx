import { StrictMode, useEffect, useState } from "react";
import { createRoot } from "react-dom/client";
import "../app/theme.css";
import { bringOwnWords } from "../audio/outside.inline";
import { type Contents, contents } from "./contents";
import { PracticePage } from "./PracticePage";

/** The practice file: what lies in this page is unpacked, then shown. */
function Practice() {
  const [file, setFile] = useState<Contents | null>(null);
  const [isBroken, setBroken] = useState(false);
  useEffect(() => {
    contents().then(
      (found) => {
        bringOwnWords(found.own_words);
        setFile(found);
      },
      () => setBroken(true),
    );
  }, []);
  if (isBroken)
    return (
      <p role="alert" className="p-4">
        This file is not whole, or this browser is too old to open it. Ask your teacher for it again, or open
        it in another browser.
      </p>
    );
  return file && <PracticePage file={file} />;
}

const root = document.getElementById("root");
if (root)
  createRoot(root).render(
    <StrictMode>
      <Practice />
    </StrictMode>,
  );
