/** Stands for a module that a browser has not and a library asks for only elsewhere. */
export default {};
