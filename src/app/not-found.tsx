export default function NotFound() {
  return (
    <main className="page">
      <h1>There is nothing here.</h1>
      <p>
        The rig may have another address now. <a href="/">All rigs</a>
      </p>
    </main>
  );
}
