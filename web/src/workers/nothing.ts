/** Stands for a module that a browser has not and a library asks for only elsewhere. */
const nothing = {};
export default nothing;
