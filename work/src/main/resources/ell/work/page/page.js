// Takes the page anew when the workspace has changed, and says when it can no longer be asked.
(() => {
  const body = document.body;
  const age = document.getElementById("age");
  if (!body.dataset.stamp) return;
  let since = Date.now();
  const look = async () => {
    try {
      const now = await fetch("/now", { cache: "no-store" });
      if (now.status === 401) return location.reload();
      const stamp = await now.text();
      if (stamp !== body.dataset.stamp) {
        const fresh = await fetch(location.pathname, { cache: "no-store" });
        const page = new DOMParser().parseFromString(await fresh.text(), "text/html");
        document.querySelector("main").replaceWith(page.querySelector("main"));
        body.dataset.stamp = page.body.dataset.stamp || stamp;
      }
      since = Date.now();
      age.textContent = body.dataset.now;
      age.className = "";
    } catch {
      const s = Math.round((Date.now() - since) / 1000);
      age.textContent = body.dataset.old + " · " + s + " s";
      age.className = "old";
    }
    setTimeout(look, 2000);
  };
  look();
})();
