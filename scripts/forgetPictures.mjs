/** Closes the pictures that Identify has left open in a browser: they would come back. @param page - of Playwright, at any page of the application. */
export const forgetPictures = (page) =>
  page.evaluate(
    () =>
      new Promise((done) => {
        const gone = indexedDB.deleteDatabase("fond-quarry");
        gone.onsuccess = gone.onerror = gone.onblocked = done;
      }),
  );
