// Nobody is signed in: what the worker kept of somebody's walls goes. Taps that were not sent yet
// stay, they hold no plan.
self.caches?.delete("gancho-at-the-wall");
