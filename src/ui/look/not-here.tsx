/** Stands for a part of the page that could not be fetched. */
export function NotHere() {
  return (
    <div role="alert" className="not-here" data-not-here>
      <p>
        This part could not be fetched: the server is away, or has been renewed since this page was
        opened. What you did is saved, or kept in this browser until it can be.
      </p>
      <button type="button" className="sound" onClick={() => window.location.reload()}>
        Reload
      </button>
    </div>
  );
}
