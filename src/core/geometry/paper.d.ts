// The package's core build carries no types of its own; they are those of the whole package.
declare module "paper/dist/paper-core.js" {
  import paper from "paper";
  export default paper;
}
