/** A refusal, shown as it stands, with a way to try again where that helps. */
export function Problem({ error, onRetry }: { error: Error; onRetry?: () => void }) {
  return (
    <div role="alert" className="card-plain border-l-4 border-error">
      <p>{error.message}</p>
      {onRetry && (
        <button type="button" className="button mt-2" onClick={onRetry}>
          Try again
        </button>
      )}
    </div>
  );
}
