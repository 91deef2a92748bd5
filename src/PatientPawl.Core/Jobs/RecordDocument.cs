using System.Globalization;
using PatientPawl.Core.Measuring;

namespace PatientPawl.Core.Jobs;

/// <summary>What a record says of itself: where it was made, and whether its log is whole.</summary>
/// <param name="Workshop">The workshop's name.</param>
/// <param name="Number">The job's number here.</param>
/// <param name="Verified">False where the log is not what was stored.</param>
/// <param name="VerifiedSays">What was found of the log, in a sentence.</param>
/// <param name="CopiedBy">Who read the job in from a file; null where it lives here.</param>
/// <param name="CopiedAt">When.</param>
public sealed record RecordOrigin(string Workshop, int Number, bool Verified, string VerifiedSays, string? CopiedBy = null,
    DateTimeOffset? CopiedAt = null);

/// <summary>A sentence at the head of a document.</summary>
/// <param name="Says">The sentence.</param>
/// <param name="Warns">True where the reader must not miss it.</param>
public sealed record DocumentNote(string Says, bool Warns);

/// <summary>A named fact.</summary>
/// <param name="Name">What it is of.</param>
/// <param name="Says">The fact.</param>
public sealed record DocumentFact(string Name, string Says);

/// <summary>A column of a table.</summary>
/// <param name="Heading">Its heading; empty where it needs none.</param>
/// <param name="Share">Its share of the width, in parts of the row's sum.</param>
public sealed record DocumentColumn(string Heading, int Share);

/// <summary>A row of a table.</summary>
/// <param name="Cells">A cell for each column.</param>
/// <param name="Verdict">The verdict that its last cell says; null where it says none.</param>
/// <param name="Struck">True where it was undone later.</param>
public sealed record DocumentRow(IReadOnlyList<string> Cells, Verdict? Verdict = null, bool Struck = false)
{
    /// <summary>True where its verdict is none to pass over.</summary>
    public bool StandsOut => Verdict is { } v && v != Measuring.Verdict.Inside;
}

/// <summary>A table.</summary>
/// <param name="Columns">Its columns.</param>
/// <param name="Rows">Its rows.</param>
public sealed record DocumentTable(IReadOnlyList<DocumentColumn> Columns, IReadOnlyList<DocumentRow> Rows)
{
    /// <summary>True where a heading is to be printed.</summary>
    public bool HasHeading => Columns.Any(c => c.Heading.Length > 0);
}

/// <summary>A photo.</summary>
/// <param name="Sha256">What it is found by.</param>
/// <param name="WidthPx">How wide, in pixels.</param>
/// <param name="HeightPx">How high, in pixels.</param>
/// <param name="Caption">What it shows.</param>
/// <param name="Says">Where, of which report, by whom and when.</param>
public sealed record DocumentPhoto(string Sha256, int WidthPx, int HeightPx, string Caption, string Says)
{
    /// <summary>What stands in its place where its bytes are gone.</summary>
    public string Gone => $"{Caption}, {Says}: its picture is gone.";
}

/// <summary>A part of a document.</summary>
/// <param name="Heading">Its heading; empty at the head of the document.</param>
/// <param name="Facts">Named facts.</param>
/// <param name="Lines">Sentences.</param>
/// <param name="Table">A table; null where there is none.</param>
/// <param name="Photos">Photos.</param>
/// <param name="Warns">True where the reader must not miss it.</param>
public sealed record DocumentPart(string Heading, IReadOnlyList<DocumentFact> Facts, IReadOnlyList<string> Lines, DocumentTable? Table,
    IReadOnlyList<DocumentPhoto> Photos, bool Warns = false)
{
    internal static DocumentPart Of(string heading, IEnumerable<DocumentFact> facts) => new(heading, [.. facts], [], null, []);

    internal static DocumentPart Of(string heading, IReadOnlyList<string> lines, bool warns = false) =>
        new(heading, [], lines, null, [], warns);

    internal static DocumentPart Of(string heading, DocumentTable table) => new(heading, [], [], table, []);

    internal bool IsEmpty => Facts.Count + Lines.Count + Photos.Count == 0 && Table is not { Rows.Count: > 0 };
}

/// <summary>A record, ready to be laid out: page, PDF and HTML are made from this one, so that none of them says another thing.</summary>
/// <param name="Title">Its title.</param>
/// <param name="Workshop">Whose it is.</param>
/// <param name="Notes">What stands at its head.</param>
/// <param name="Parts">Its parts, in order.</param>
/// <param name="Foot">What stands at its end.</param>
public sealed record RecordDocument(string Title, string Workshop, IReadOnlyList<DocumentNote> Notes, IReadOnlyList<DocumentPart> Parts,
    string Foot)
{
    private const string Outranked = "The maker's data for the vehicle, local law and a licensed technician's judgement outrank every figure here. ";

    private const string Chained =
        "the sender's stands beside where it differs by more than 5 minutes. Each entry carries the hash of the one before and this workshop's seal.";

    /// <summary>The record of a job as a document.</summary>
    /// <param name="record">The record.</param>
    /// <param name="origin">Where it was made.</param>
    /// <param name="zone">The workshop's time zone: all times are told in it.</param>
    public static RecordDocument Of(JobRecord record, RecordOrigin origin, TimeZoneInfo zone)
    {
        ArgumentNullException.ThrowIfNull(record);
        ArgumentNullException.ThrowIfNull(origin);
        ArgumentNullException.ThrowIfNull(zone);
        var clock = new Clock(zone);
        DocumentPart[] parts =
        [
            DocumentPart.Of("", Head(record)),
            DocumentPart.Of("Open", record.OpenPoints, warns: true),
            DocumentPart.Of("Brakes", record.Brakes),
            DocumentPart.Of("Readings and verdicts", Verdicts(record)),
            DocumentPart.Of("Torques", Torques(record)),
            DocumentPart.Of("Proved", record.Proofs),
            DocumentPart.Of("Decided", record.Decisions),
            new("Photos", [], [], null, [.. record.Photos.Select(p => Photo(p, clock))]),
            DocumentPart.Of("Advice", record.Advice),
            DocumentPart.Of("Step by step", Log(record, clock)),
        ];
        return new($"Brake record, job {Figure.Of(origin.Number)}{(record.Finished ? "" : ", not finished")}", origin.Workshop,
            [.. NotesOf(record, origin, clock)], [.. parts.Where(p => !p.IsEmpty)],
            $"{Outranked}Times are the server's, {Clock.Name(zone)}; {Chained}");
    }

    private static IEnumerable<DocumentNote> NotesOf(JobRecord record, RecordOrigin origin, Clock clock)
    {
        var purpose = record.Opened.Purpose switch
        {
            JobPurpose.Real => null,
            JobPurpose.Demo => "Demo",
            JobPurpose.Practice => "Practice",
            JobPurpose.Test => "Test",
            _ => throw new ArgumentOutOfRangeException(nameof(record), record.Opened.Purpose, "No such purpose."),
        };
        if (purpose is not null) yield return new($"{purpose}, no real car: what is simulated proves nothing of any vehicle.", true);
        if (origin is { CopiedBy: { } by, CopiedAt: { } at }) yield return new($"A copy, read in by {by} on {clock.Moment(at)}.", true);
        yield return new(origin.VerifiedSays, !origin.Verified);
    }

    private static IEnumerable<DocumentFact> Head(JobRecord record)
    {
        var (opened, v) = (record.Opened, record.Opened.Vehicle);
        var vin = v.Vin is null ? "" : $", VIN {v.Vin}{(record.VinSays is { } says ? $" ({says})" : "")}";
        yield return new("Vehicle", $"{v.Make} {v.Model}, {v.Use}, plate {v.Plate}{vin}");
        yield return new("Odometer", $"{Figure.Of(opened.OdometerKm)} km");
        yield return new("Complaint", opened.Complaint);
        yield return new("Renewed", record.Fitted.Count > 0 ? string.Join(" ", record.Fitted) : "nothing yet");
        yield return new("Limits from", $"{opened.Sheet.Code}, {opened.Sheet.Title}. {opened.Sheet.Source}.");
    }

    private static DocumentTable Verdicts(JobRecord record) => new(
        [new("What", 26), new("Read", 28), new("Limit", 36), new("Verdict", 15)],
        [.. record.Verdicts.Select(v => new DocumentRow(
            [v.What, $"{Mm(v.Value.Millimeters)}, {Instrument(v, record.Opened)}", Limit(v), Phrase.Capital(v.Verdict.Words())],
                v.Verdict))]);

    // A job of an older version names its instrument in the words alone.
    private static string Instrument(LimitVerdict v, JobOpened opened) =>
        opened.Instruments?.FirstOrDefault(i => i.Id == v.InstrumentId)?.Name ?? v.Reasons.Lines[0].Result.Split(", ")[^1];

    private static string Limit(LimitVerdict v)
    {
        var assumed = v.Reasons.Lines.Any(l => l.Kind == Reasoning.ReasonKind.Default && l.Label == LimitJudgement.LimitName(v.Kind));
        return $"{(v.Kind == LimitKind.Minimum ? "least" : "most")} {Mm(v.Limit.Millimeters)}{(assumed ? " (default)" : "")}, " +
            $"safety margin {Mm(v.GuardBand.Millimeters)}";
    }

    private static DocumentTable Torques(JobRecord record) => new(
        [new("Side", 8), new("Fastener", 24), new("At the bolt", 22), new("Wrench", 22), new("Applied", 22), new("Signed", 14)],
        [.. record.Torques.Select(t => new DocumentRow([
            t.Where, t.Fastener, t.Wanted, t is { Verified: true, Setting: { } set } ? $"{t.Wrench}, set to {set}" : t.Wrench,
            t.Verified ? t.Applied : $"unverified: {t.Applied}", t.By,
        ]))]);

    private static DocumentTable Log(JobRecord record, Clock clock) => new(
        [new("", 5), new("", 19), new("", 7), new("", 60), new("", 14)],
        [.. record.Log.Select(l => new DocumentRow([
            Figure.Of(l.Seq), clock.Moment(l.At) + (l.ClientAt is { } sent ? $", sent {clock.Moment(sent)}" : ""), l.Where,
            l.Detail.Length > 0 ? $"{l.What}: {l.Detail}" : l.What, l.By,
        ], Struck: l.Voided))]);

    private static DocumentPhoto Photo(RecordPhoto p, Clock clock) => new(p.Sha256, p.WidthPx, p.HeightPx, p.Caption,
        string.Join(", ", ((string?[])[p.Where, p.Report?.ToLowerInvariant(), p.By, clock.Moment(p.At)]).OfType<string>()));

    private static string Mm(double millimetres) => $"{Figure.Of(millimetres)} mm";

    private sealed record Clock(TimeZoneInfo Zone)
    {
        public string Moment(DateTimeOffset at) =>
            TimeZoneInfo.ConvertTime(at, Zone).ToString("yyyy-MM-dd HH:mm", CultureInfo.InvariantCulture);

        public static string Name(TimeZoneInfo zone) => zone.BaseUtcOffset == TimeSpan.Zero && !zone.SupportsDaylightSavingTime ? "in UTC"
            : $"in the zone {zone.Id}";
    }
}
