// The package for arithmetic of curves, ready to use. It wants a project before anything else; nothing is ever put in it.
import paper from "paper/dist/paper-core.js";

paper.setup(new paper.Size(1, 1));
export { paper };
