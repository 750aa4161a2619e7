import { Link } from "react-router";
import bench from "../../../../docs/screenshots/bench.png";
import map from "../../../../docs/screenshots/map.png";
import stand from "../../../../docs/screenshots/stand.png";
import student from "../../../../docs/screenshots/student.png";
import { useGuideRead } from "../../ui/useGuideRead";
import help from "./help.json";

const PICTURES: Record<string, string> = { bench, map, stand, student };

/** Ten minutes from a new student to the first word, in the order of the job. */
export function GuidePage() {
  const [isRead, setRead] = useGuideRead();
  return (
    <article className="max-w-3xl">
      <h1 className="text-2xl sm:text-3xl font-extrabold mb-1">
        Ten minutes from a new student to the first word
      </h1>
      <p className="text-soft mb-4">
        In the order of the job. The places are at the top, or on the keys 1 to 6.
      </p>
      {help.guide.map((step) => (
        <section key={step.heading} className="card-plain mb-3">
          <h2>{step.heading}</h2>
          {step.text.map((line) => (
            <p key={line} className="mb-2">
              {line}
            </p>
          ))}
          {step.to && (
            <Link className="button button-small" to={step.to}>
              {step.toName}
            </Link>
          )}
          {step.picture && (
            <img
              className="mt-3 w-full rounded-lg"
              src={PICTURES[step.picture.name]}
              alt={step.picture.words}
              loading="lazy"
            />
          )}
        </section>
      ))}
      <button type="button" className="button" onClick={() => setRead(!isRead)}>
        {isRead ? "Keep the guide among the places" : "I have read it: take the guide out of the places"}
      </button>
    </article>
  );
}
