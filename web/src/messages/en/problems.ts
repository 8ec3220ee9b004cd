/** What only the web can meet, by the code of the problem; the rest is shared with the command line. */
export const problems = {
  "server.database-gone":
    "The database cannot be reached. What you typed is kept here and saved as soon as it is back.",
  "server.starting": "The server is starting. What you typed is kept here; try again in a moment.",
  "server.schema-newer":
    "The database belongs to a newer version of this program. Start that version. What you typed is kept here.",
  "server.stopped": "You stopped it.",
  "server.disk-full": "The server’s disk is full. What you typed is kept here until there is room.",
  "server.failed": "Something went wrong on the server. What you typed is kept here.",
  "server.answer-not-understood":
    "The server gave an answer this page does not understand. Reload the page; what you typed is kept.",
  "server.unreadable-row":
    "The database holds {what} that does not read. Nothing was changed. Ask who keeps the server to restore it.",
  "worker.stopped": "The calculation stopped. Reload the page; nothing is lost.",
  "worker.message-not-understood":
    "This page sent itself something it does not understand. Reload it; what you typed is kept.",
  "server.not-json": "Only JSON is taken here.",
  "server.no-such-lesson": "There is no such lesson in the notebook any more.",
  "server.no-such-job": "There is no such job any more.",
  "server.no-such-wiring": "There is no such wiring any more.",
  "server.no-such-photo": "There is no such photo any more.",
  "server.not-a-chart": "This is not a pin chart.",
  "server.changed-meanwhile": "Somebody else changed the wiring meanwhile. Try again.",
  "gap.not-understood": "Say at which cavity, and where its wire goes.",
  "gap.not-open": "{at} has its wire on the drawing already, or is no pin of a sensor or actuator.",
  "sign-in.needed": "You are signed out. Sign in again; what you typed is kept here.",
  "sign-in.may-only-read": "Your role is to read. Ask an administrator to change it.",
  "sign-in.not-allowed": "Your role does not allow this.",
  "sign-in.needs-password": "You signed in with a PIN. Sign in with your password or passkey to manage people.",
  "sign-in.of-another": "{name} wrote this. It waits on this device until {name} signs in again.",
  "sign-in.no-such-way": "There is no such way to sign in here.",
  "sign-in.no-such-person": "There is no such person any more.",
  "sign-in.disabled": "This person may not sign in. Let them in again first.",
  "sign-in.last-administrator": "Somebody has to keep this role. Give it to another person first.",
  "sign-in.taken": "Somebody has this name, sign-in name or e-mail address already. Choose another.",
  "hidden.not-closed": "Close the job first. Then what was hidden is shown.",
  "server.no-simulated-machine": "This job has no simulated machine.",
  "server.no-such-recording": "There is no such recording any more.",
  "recording.not-read": "The file could not be read to its end.",
  "recording.not-compressed": "Only a compressed recording is taken here.",
  "recording.too-large": "It is larger than {limit} bytes, compressed. Save a shorter part.",
} as const;
