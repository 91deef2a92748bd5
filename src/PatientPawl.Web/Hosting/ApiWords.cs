using Microsoft.AspNetCore.Authorization;
using Microsoft.OpenApi;

namespace PatientPawl.Web.Hosting;

/// <summary>What each operation of the API is called and does, for whoever reads the document.</summary>
public static class ApiWords
{
    /// <summary>Method and path, operation id, what it does.</summary>
    public static IReadOnlyList<(string At, string Id, string Does)> All { get; } =
    [
        ("GET /api/session", "getSession", "Who is signed in, and who can."),
        ("POST /api/session", "signIn", "Signs in by PIN. Wrong ones cost the device time."),
        ("DELETE /api/session", "signOut", "Ends the session at the server, and with it everybody's on the device."),
        ("POST /api/session/with", "signInWith", "Signs a second person in on the same device, or asks one of the two for their PIN again."),
        ("DELETE /api/session/with/{id}", "signOutOne", "Signs one of the two out; whoever stays keeps the device."),
        ("POST /api/workshop/first-lead", "addFirstLead", "Makes the first lead of an empty workshop."),
        ("POST /api/technicians", "addTechnician", "The lead adds somebody."),
        ("POST /api/technicians/{id}/pin", "setPin", "Changes a PIN, one's own or as the lead anybody's, and ends that person's sessions."),
        ("POST /api/technicians/{id}/left", "setLeft", "Somebody has left: their name stays in every record and signs in no more."),
        ("GET /api/catalogue", "getCatalogue", "What never changes while the product runs: looks, architectures, questions, measurands."),
        ("GET /api/sources", "getSources", "Sources, default figures and interlocks: where everything comes from."),
        ("GET /api/workshop/house-rules", "getHouseRules", "The house rules, each with its schools, and what they make of a sample plan."),
        ("PUT /api/workshop/house-rules", "setHouseRules", "The lead sets the house rules; jobs that are open keep theirs."),
        ("POST /api/workshop/house-rules/preview", "previewHouseRules", "What a change of the house rules would do, before it is made."),
        ("GET /api/workshop/backup", "getBackup", "A backup made while the workshop works; it holds the seal key, so only the lead takes it."),
        ("GET /api/workshop/backups", "getBackups", "The days that a backup is kept of, and the one that the next start puts back."),
        ("POST /api/workshop/restore/kept", "restoreKept", "A backup that is kept here is put back at the next start."),
        ("POST /api/workshop/restore/file", "restoreFile", "The backup that is sent is put back at the next start, once it has been read through."),
        ("DELETE /api/workshop/restore", "withdrawRestore", "The next start puts nothing back."),
        ("GET /api/workshop/logs", "getLogs", "What the reading of every log after the start found."),
        ("GET /api/workshop/wrenches", "getWrenches", "The wrenches with their ranges, deviations and calibration."),
        ("POST /api/workshop/wrenches", "saveWrench", "The lead adds a wrench or changes its figures."),
        ("DELETE /api/workshop/wrenches/{id}", "removeWrench", "The lead takes a wrench off the list; records keep it."),
        ("GET /api/workshop/wrenches/certificates", "getCertificates", "Certificates of the wrenches, and what they say: right until then, right now, how far it drifts."),
        ("POST /api/workshop/wrenches/{id}/certificates", "addCertificate", "The lead enters a certificate, as found and as left; torques are reckoned with it from then on."),
        ("GET /api/workshop/wrenches/{id}/certificates/{on}/file", "getCertificateFile", "The laboratory's paper of a certificate, as PDF."),
        ("GET /api/vehicles", "getVehicles", "Known vehicles with the code of their sheet."),
        ("POST /api/vehicles", "saveVehicle", "Saves a vehicle with its sheet."),
        ("GET /api/vehicles/{plate}/story", "getStory", "A vehicle over the years: its jobs, figures over distance, what was learnt and what comes due."),
        ("GET /api/practice", "getPractice", "The practice page: scenarios, one's own runs, cards that are due, and what was shown; for the lead everybody's."),
        ("POST /api/practice/runs", "openRun", "Opens a run: a practised job that is on no board and in no search."),
        ("GET /api/practice/scenarios/{id}", "getScenario", "A scenario as a file, its truth too; for the lead."),
        ("GET /api/practice/form", "getScenarioForm", "What a scenario can be made of: figures with their ranges, faults, mistakes; for the lead."),
        ("POST /api/practice/scenarios", "saveScenario", "The lead keeps a scenario of the workshop's own."),
        ("POST /api/practice/scenarios/from-job", "scenarioFromJob", "The lead makes a scenario of a finished job: plate, names, VIN, notes and pictures stay behind."),
        ("DELETE /api/practice/scenarios/{id}", "removeScenario", "The lead removes a scenario of the workshop's own; runs keep their copy."),
        ("DELETE /api/practice/runs/{id}", "deleteRun", "Deletes one's own run. What it showed stays."),
        ("GET /api/practice/cards", "getCards", "A dozen cards with every choice judged: what is due, then new ones."),
        ("POST /api/practice/cards", "answerCards", "Answers to cards, given here or before the network came back; each is told once."),
        ("GET /api/jobs/{id}/practice", "getRun", "A practised job beside its run sheet: what its step asks, what can be touched, what happened."),
        ("POST /api/jobs/{id}/practice/answer", "answerStep", "Says how a step is meant to be done, before anything shows how."),
        ("POST /api/jobs/{id}/practice/pick", "pickStep", "Picks the next step; one that the rules refuse is told with what it would have come to."),
        ("POST /api/jobs/{id}/practice/look", "touch", "Touches a thing and looks at it."),
        ("POST /api/jobs/{id}/practice/read", "readGauge", "Reads a gauge that is not there."),
        ("POST /api/jobs/{id}/practice/point", "readPoint", "What a gauge that is not there shows at a point, for a bench."),
        ("POST /api/jobs/{id}/practice/sight", "getSight", "What a look of the identification shows."),
        ("POST /api/jobs/{id}/practice/help", "askNext", "Asks what is next. It counts."),
        ("POST /api/jobs/{id}/practice/return", "returnBefore", "Back to before a harm; it stays in the debrief."),
        ("POST /api/jobs/{id}/practice/end", "endRun", "Ends a run, and keeps what it showed."),
        ("GET /api/jobs/{id}/debrief", "getDebrief", "A run talked over: every choice judged by the engines, every harm by the car alone."),
        ("GET /api/fleet", "getFleet", "A page of the vehicles that were here, those whose pads are soonest at their minimum first; found by words of them."),
        ("GET /api/fleet/csv", "getFleetCsv", "Every vehicle that was here as CSV (RFC 4180)."),
        ("GET /api/workshop/lessons", "getLessons", "What finished jobs taught: minutes of steps, findings that come up again and again at a type of vehicle."),
        ("GET /api/reminders", "getReminders", "What comes due within 90 days, of 200 vehicles at most, the soonest first, without what was ticked off."),
        ("POST /api/reminders/done", "tickOff", "Ticks a reminder off."),
        ("GET /api/reminders/calendar", "getCalendar", "The lead reads the address under which a calendar program finds the reminders."),
        ("POST /api/reminders/calendar/renew", "renewCalendar", "The lead makes a new address; the old one answers no more."),
        ("GET /api/reminders.ics", "readCalendar", "The reminders as iCalendar (RFC 5545), for whoever has the key."),
        ("GET /api/spec-sheets", "getSheets", "Every spec sheet."),
        ("GET /api/spec-sheets/form", "getSheetForm", "What a spec sheet is made of: each field with its unit, its range or its answers."),
        ("POST /api/spec-sheets", "saveSheet", "Saves a spec sheet; each wrong figure is named."),
        ("POST /api/spec-sheets/look", "lookAtSheet", "What is unusual on a sheet: questions, never refusals."),
        ("GET /api/spec-sheets/{code}/measured", "getMeasuredHere", "Figures measured at vehicles of this sheet, offered to it."),
        ("GET /api/spec-sheets/{code}/csv", "getSheetCsv", "A sheet as CSV (RFC 4180)."),
        ("GET /api/spec-sheets/{code}/json", "getSheetJson", "A sheet as JSON."),
        ("POST /api/spec-sheets/csv/read", "readSheetCsv", "Reads a sheet from CSV and stores nothing."),
        ("POST /api/bench/vin", "checkVin", "Checks a VIN's letters and check digit."),
        ("POST /api/bench/identify", "identify", "Which brakes are possible by what was seen."),
        ("POST /api/bench/retract", "retract", "Which way a piston goes back and how far, with no job."),
        ("POST /api/bench/retraction-log", "followLog", "Follows a piston home reading by reading, with no job."),
        ("POST /api/bench/alignment", "alignSlot", "How a slot comes to the pad's pin."),
        ("POST /api/bench/creep", "watchCreep", "Opposed pistons before and after a push."),
        ("POST /api/bench/boot", "judgeBoot", "What a boot's state means."),
        ("POST /api/bench/fluid", "judgeFluid", "Reservoir, fluid and strokes, with no job."),
        ("POST /api/bench/bleeding", "followBleeding", "Where a bleeding stands."),
        ("POST /api/bench/leaks", "judgeLeaks", "What a leak check says."),
        ("POST /api/bench/shoes", "judgeShoes", "Drum, linings and clearance against their limits, with no job."),
        ("POST /api/bench/rotor", "judgeRotor", "Thickness, variation and runout against their limits, with no job."),
        ("POST /api/bench/speck", "reckonSpeck", "The runout that a speck under the rotor makes at the rim."),
        ("POST /api/bench/pads", "judgePads", "Pads against their limit, their wear and how long they last, with no job."),
        ("GET /api/bench/bed-in", "getUsualBedIn", "The bed-in series that is driven where the pad maker's sheet says nothing."),
        ("POST /api/bench/bed-in", "reckonBedIn", "A bed-in series: its temperatures stop by stop, its ceiling, its time and distance, with no job."),
        ("POST /api/bench/parking-hold", "judgeParkingHold", "Whether a hill, a roller bench or the rotors' temperatures prove the parking brake, with no job."),
        ("GET /api/jobs/{id}/proof", "getProof", "What a job knows of its bed-in and its parking brake."),
        ("POST /api/jobs/{id}/bed-in", "noteBedIn", "Notes a bed-in that was driven, and how many of its stops."),
        ("POST /api/jobs/{id}/parking-hold", "noteParkingHold", "Notes what the parking brake was tried by."),
        ("GET /api/workshop/instruments", "getInstruments", "The instruments with their doubt and calibration."),
        ("PUT /api/workshop/instruments", "setInstruments", "The lead replaces the list of instruments."),
        ("POST /api/readings/csv/read", "readReadingsCsv", "Reads readings from CSV and stores nothing."),
        ("POST /api/readings/csv/write", "writeReadingsCsv", "Writes readings as CSV (RFC 4180)."),
        ("POST /api/gauge/{bench}/press", "pressGauge", "Presses the send key of the stand-in gauge."),
        ("GET /api/gauge/{bench}/readings", "listenToGauge", "Readings of a gauge as they come (server-sent events)."),
        ("POST /api/bench/torque", "setTorque", "What a wrench is set to for a torque at the bolt, with no job."),
        ("POST /api/bench/torque-line", "setTorqueLine", "Which wrench a line of a sheet takes and what it is set to."),
        ("GET /api/board", "getBoard", "The bay board: what is open, what came last in its bay, and what is due back."),
        ("GET /api/changes", "listenToChanges", "Which job has moved on, as it does (server-sent events)."),
        ("GET /api/jobs/{id}/retraction", "getRetraction", "The retract bench of a corner."),
        ("POST /api/jobs/{id}/retraction/points", "notePoint", "Notes a line of a retraction log."),
        ("POST /api/jobs/{id}/retraction/points/strike", "strikePoint", "Strikes a line of a retraction log out; it stays in the log."),
        ("POST /api/jobs/{id}/retraction/pistons", "measurePistons", "Notes a round of measuring every piston of an opposed caliper."),
        ("POST /api/jobs/{id}/retraction/tries", "tryCaliper", "Notes a try of the caliper over its new pads."),
        ("POST /api/jobs/{id}/retraction/looked", "lookAtPiston", "Notes slot, boot and what was tried at a corner."),
        ("GET /api/jobs/{id}/fluid", "getFluid", "The fluid bench of a job."),
        ("POST /api/jobs/{id}/fluid/looked", "lookAtFluid", "Notes cap, bottle, water and how the fluid is bled."),
        ("POST /api/jobs/{id}/fluid/leaks", "lookForLeaks", "Notes what a leak check showed."),
        ("POST /api/jobs/{id}/fluid/draws/strike", "strikeDraw", "Strikes a draw out; it stays in the log."),
        ("POST /api/jobs/{id}/fluid/draws", "noteDraw", "Notes a draw at the bleed screw."),
        ("GET /api/jobs/{id}/benches", "getBenches", "What the measuring benches of a job hold."),
        ("POST /api/jobs/{id}/bench/shoes", "judgeJobShoes", "The shoe bench of a job with what is typed and not stored yet."),
        ("POST /api/jobs/{id}/bench/rotor", "judgeJobRotor", "The rotor bench of a job with what is typed and not stored yet."),
        ("POST /api/jobs/{id}/bench/pads", "judgeJobPads", "The pad bench of a job with what is typed and not stored yet."),
        ("GET /api/jobs/{id}/readings.csv", "getReadingsCsv", "Every reading of a job as CSV (RFC 4180)."),
        ("POST /api/jobs/{id}/attached", "attachBench", "Puts what a quick bench knows into the job: all of it is stored, or none."),
        ("POST /api/jobs/{id}/readings", "takeReadings", "Stores readings at points; they never wait for a version."),
        ("POST /api/jobs/{id}/readings/strike", "strikeReading", "Strikes a reading out; it stays in the log."),
        ("POST /api/jobs/{id}/shoes-looked", "lookAtShoes", "Notes what was seen of drum and shoes."),
        ("POST /api/jobs/{id}/rotor-looked", "lookAtRotor", "Notes what was seen of a rotor."),
        ("POST /api/jobs/{id}/pads-looked", "lookAtPads", "Notes what was seen of the pads."),
        ("POST /api/jobs/{id}/star-wheel", "noteStarWheel", "Notes which way a star wheel loosens; it goes with the vehicle."),
        ("GET /api/jobs/{id}/routes", "getRoutes", "The routes into the service position, best first."),
        ("POST /api/bench/current", "readCurrent", "Reads a current trace given as CSV: its kind, times, currents, travel and clamp, and another beside it."),
        ("GET /api/car/faults", "getCarFaults", "Faults of the stand-in car."),
        ("POST /api/car/faults", "setCarFault", "Sets or lifts a fault of the stand-in car; for the lead."),
        ("GET /api/jobs/{id}/electric", "getElectricBench", "The electric bench of a job: what it offers now, and why not the rest."),
        ("POST /api/jobs/{id}/electric/act", "actElectric", "Asks something of the car over the link. It is recorded before anything moves."),
        ("POST /api/jobs/{id}/electric/stop", "stopElectric", "Asks the unit to stop. It is not a safety device."),
        ("POST /api/jobs/{id}/electric/settle", "settleElectric", "Asks the car how something stands whose end is not recorded."),
        ("GET /api/jobs/{id}/electric/live", "listenToElectric", "Travel, currents, volts and state as they are (server-sent events)."),
        ("GET /api/jobs/{id}/electric/exchange", "getExchange", "What went over the link for this job."),
        ("POST /api/jobs/{id}/traces", "keepTrace", "Keeps a current trace taken with a clamp meter."),
        ("GET /api/jobs/{id}/traces/{sha256}", "getTrace", "A trace of this job as CSV."),
        ("GET /api/jobs/{id}/traces/{sha256}/drawn", "getTraceDrawn", "Enough of a trace to draw it."),
        ("POST /api/jobs", "openJob", "Opens a job."),
        ("GET /api/jobs/past", "findPastJobs", "Finished jobs and copies, found by how their words begin, a page at a time."),
        ("GET /api/jobs/{id}", "getJob", "A job as its screens need it; 304 while it is what the ETag names."),
        ("GET /api/jobs/{id}/why-not", "whyNot", "Why a step cannot be done now."),
        ("POST /api/jobs/{id}/look-over", "lookOver", "Answers the questions before lifting."),
        ("POST /api/jobs/{id}/looks", "recordLook", "Records what is seen at a corner."),
        ("POST /api/jobs/{id}/rulings", "confirmBrake", "Confirms a corner's brake type by what was seen."),
        ("POST /api/jobs/{id}/route", "chooseRoute", "Chooses the route into the service position."),
        ("POST /api/jobs/{id}/steps", "clickStep", "Clicks a step on, with its readings and what was found."),
        ("POST /api/jobs/{id}/torques", "signTorque", "Signs a fastener."),
        ("POST /api/jobs/{id}/findings", "reportFinding", "Reports what was found."),
        ("POST /api/jobs/{id}/findings/preview", "previewFinding", "What a finding would change in minutes, steps and parts, before it is reported."),
        ("POST /api/jobs/{id}/out-of-order", "markOutOfOrder", "Marks a step that was done before its turn, with a note."),
        ("GET /api/jobs/{id}/choices", "getChoices", "What may be done by choice, and what it would change."),
        ("GET /api/jobs/{id}/goals", "getGoals", "Where the job could go instead, and what that would take."),
        ("POST /api/jobs/{id}/beside", "putBeside", "The lead puts somebody beside another on this job, where the house asks for what was shown in practice."),
        ("POST /api/jobs/{id}/goal", "changeGoal", "Changes what the job is to end in, with a reason."),
        ("GET /api/jobs/{id}/overnight", "getOvernight", "The shortest safe stopping point."),
        ("POST /api/jobs/{id}/overnight", "leaveOvernight", "Leaves the car overnight."),
        ("POST /api/jobs/{id}/come-back", "comeBack", "Comes back to the car."),
        ("GET /api/jobs/{id}/schedule", "getSchedule", "What is left, for one technician or two."),
        ("GET /api/jobs/{id}/torque-card", "getTorqueCard", "Every torque of the job, for the wall beside the car."),
        ("POST /api/jobs/{id}/stop-signs", "reportStopSign", "Reports a stop sign at a piston."),
        ("POST /api/jobs/{id}/stop-signs/settled", "settleStopSign", "Says what was done: the same caliper goes on."),
        ("POST /api/jobs/{id}/parts/awaited", "awaitParts", "The job waits for parts."),
        ("POST /api/jobs/{id}/parts/came", "receiveParts", "The parts are here."),
        ("GET /api/jobs/{id}/lifts/{target}", "previewUndo", "What undoing a step would undo with it."),
        ("POST /api/jobs/{id}/lifts", "undo", "Undoes a step, with a reason; it stays in the log."),
        ("POST /api/jobs/{id}/notes", "addNote", "Adds a note."),
        ("GET /api/jobs/{id}/customer-sheet", "getCustomerSheet", "The sheet for whoever owns the car: what was done, how worn it was, what to do now."),
        ("GET /api/jobs/{id}/record", "getRecord", "The record of a job."),
        ("GET /api/jobs/{id}/verified", "verifyJob", "Reads every hash and seal of a job's log again."),
        ("GET /api/jobs/{id}/record/document", "getRecordDocument", "The record as a document: title, notes, facts, tables, photos; page, PDF and HTML are made from it."),
        ("GET /api/jobs/{id}/record.pdf", "getRecordPdf", "The record as PDF on A4 or Letter, its typeface embedded."),
        ("GET /api/jobs/{id}/record.html", "getRecordHtml", "The record as one HTML file that fetches nothing."),
        ("GET /api/jobs/{id}/address.svg", "getAddressCode", "The job's address as a QR code (ISO/IEC 18004)."),
        ("GET /api/jobs/{id}/torques.csv", "getTorquesCsv", "The job's torques as CSV (RFC 4180), newton metres and degrees."),
        ("POST /api/torques/csv/read", "readTorquesCsv", "Torques from CSV, with what became of each line."),
        ("GET /api/jobs/{id}/file", "getJobFile", "The whole job as a file of the open format."),
        ("POST /api/jobs/{id}/photos", "addPhoto", "Keeps a photo of a corner, the car or a report: made smaller, with nothing in it but the picture."),
        ("GET /api/jobs/{id}/photos/{sha256}", "getPhoto", "A photo of this job, as it is kept."),
        ("POST /api/jobs/import", "importJob", "The lead reads a job in from a file: a copy that takes nothing more."),
    ];

    private static readonly Dictionary<string, (string At, string Id, string Does)> ByPlace = All.ToDictionary(w => w.At, StringComparer.Ordinal);

    /// <summary>Names an operation, says what it does, and which refusals it can answer with.</summary>
    internal static void Write(OpenApiOperation operation, string method, string path, IReadOnlyList<object> metadata)
    {
        var (_, id, does) = ByPlace[$"{method} /{path.Replace(":guid", "", StringComparison.Ordinal).TrimEnd('/')}"];
        (operation.OperationId, operation.Summary) = (id, does.TrimEnd('.'));
        var signedIn = metadata.OfType<IAuthorizeData>().Any();
        var ofJob = path.Contains("jobs/{id", StringComparison.Ordinal);
        var writes = method != "GET";
        operation.Description = does + (signedIn ? " Only for who is signed in." : "") + (writes && ofJob && operation.RequestBody is not null ? " Sent twice under one event id it counts once." : "");
        var body = operation.RequestBody is not null;
        Refuses(operation, body || operation.Parameters is { Count: > 0 }, "400", "A field is wrong: its name, what was sent and what may be.");
        Refuses(operation, signedIn, "401", "Sign in first.");
        Refuses(operation, writes || signedIn, "403", "Not for this person, or not from this page.");
        Refuses(operation, path.Contains('{', StringComparison.Ordinal), "404", "There is no such thing.");
        Refuses(operation, writes && ofJob, "409", "The job has moved on, or the event id was used for something else.");
        Refuses(operation, writes && ofJob, "422", "Not now: what is lacking, and what it would break.");
        Refuses(operation, id is "signIn" or "setPin", "429", "Too many wrong PINs from this device: wait.");
        Refuses(operation, body, "415", "Sent as something else than JSON in UTF-8.");
    }

    private static void Refuses(OpenApiOperation operation, bool can, string code, string why)
    {
        if (!can) return;
        operation.Responses ??= [];
        operation.Responses.TryAdd(code, new OpenApiResponse
        {
            Description = why,
            Content = new Dictionary<string, OpenApiMediaType>(StringComparer.Ordinal) { ["application/problem+json"] = new() { Schema = new OpenApiSchema { Type = JsonSchemaType.Object } } },
        });
    }
}
