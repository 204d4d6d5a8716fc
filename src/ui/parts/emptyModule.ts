// Stands in for Node's "module" in the browser build of the wasm packages.
export default {};
