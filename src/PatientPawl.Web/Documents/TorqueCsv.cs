using System.Globalization;
using PatientPawl.Core;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Torque;
using PatientPawl.Web.Hosting;
using PatientPawl.Web.Measuring;
using UnitsNet;
using TorqueQuantity = UnitsNet.Torque;

namespace PatientPawl.Web.Documents;

/// <summary>A torque as it was signed.</summary>
/// <param name="Side">Its corner; null of the car.</param>
/// <param name="Role">The fastener.</param>
/// <param name="Index">Which of them, from 1.</param>
/// <param name="Wanted">At the bolt.</param>
/// <param name="ThenAngle">Turned further by; null where by torque alone.</param>
/// <param name="Set">On the wrench's scale; null where there was none.</param>
/// <param name="AppliedLow">Least that was applied; null where that is not known.</param>
/// <param name="AppliedHigh">Most that was applied; null where that is not known.</param>
/// <param name="Wrench">The wrench; empty where there was none.</param>
/// <param name="Verified">False where the lead had to accept it.</param>
/// <param name="HandTight">True where no figure was known anywhere.</param>
/// <param name="By">Who signed.</param>
/// <param name="At">When, by the server's clock.</param>
public sealed record TorqueRow(Side? Side, FastenerRole Role, int Index, TorqueQuantity Wanted, Angle? ThenAngle, TorqueQuantity? Set,
    TorqueQuantity? AppliedLow, TorqueQuantity? AppliedHigh, string Wrench, bool Verified, bool HandTight, string By, DateTimeOffset At)
{
    /// <summary>The torques of a job that stand, in the order in which they were signed.</summary>
    internal static IEnumerable<TorqueRow> Of(JobState state) =>
        from e in state.Standing
        let t = e.Event as TorqueSigned
        where t is not null
        select new TorqueRow(t.Step.Side, t.Line.Role, t.Index, t.Line.Wanted, t.Line.ThenAngle, t.Set?.OnTheScale, t.Set?.AppliedLow,
            t.Set?.AppliedHigh, t.Wrench?.Id ?? "", t.Verified, t.HandTight, e.Technician, e.At);
}

/// <summary>Torques as they were understood.</summary>
/// <param name="Torques">What was read.</param>
/// <param name="Lines">What became of each line.</param>
public sealed record TorquesRead(IReadOnlyList<TorqueRow> Torques, IReadOnlyList<CsvLine> Lines);

/// <summary>Torques as CSV (RFC 4180), one a line, newton metres and degrees; the columns are found by their names.</summary>
internal static class TorqueCsv
{
    private const int MostCharacters = 200_000;

    private static readonly string[] Columns = ["side", "fastener", "index", "wanted_nm", "then_angle_deg", "set_nm", "applied_low_nm",
        "applied_high_nm", "wrench", "verified", "hand_tight", "signed_by", "signed_at"];

    public static string Write(IEnumerable<TorqueRow> torques) => Csv.Write(Columns, torques.Select(t => (string[])
    [
        t.Side is { } side ? side.Word() : "car", Csv.Word(t.Role), Figure.Of(t.Index), Nm(t.Wanted),
        t.ThenAngle is { } angle ? Figure.Of(angle.Degrees) : "", Nm(t.Set), Nm(t.AppliedLow), Nm(t.AppliedHigh),
        Csv.Harmless(t.Wrench), YesNo(t.Verified), YesNo(t.HandTight), Csv.Harmless(t.By), Csv.Time(t.At),
    ]));

    /// <summary>Reads what it can and says of every other line what is wrong with it.</summary>
    /// <exception cref="InputException">Nothing to read, too much of it, or no heading.</exception>
    public static TorquesRead Read(string text)
    {
        var (csv, separator, first) = Csv.Open(text, MostCharacters);
        using var _ = csv;
        string[] heading = [.. first.Split(separator).Select(h => h.Trim().Trim('"').ToLowerInvariant())];
        if (Columns.FirstOrDefault(c => !heading.Contains(c)) is { } lacking)
            throw new InputException(new InputError("text", Figure.Shorten(first), string.Join(",", Columns),
                $"The first line names the columns, and {lacking} is not among them."));
        List<TorqueRow> torques = [];
        List<CsvLine> lines = [];
        csv.Read();
        while (csv.Read())
        {
            string Cell(string name) => Array.IndexOf(heading, name) is var i && i < csv.FieldCount ? csv.GetString(i) : "";
            try
            {
                var row = Row(Cell, separator);
                torques.Add(row);
                lines.Add(new((int)csv.LineNumber, true, $"{Fasteners.Words(row.Role)} {row.Index}, {Nm(row.Wanted)} N m"));
            }
            catch (InputException e)
            {
                lines.Add(new((int)csv.LineNumber, false, e.Message));
            }
        }

        return new(torques, lines);
    }

    private static TorqueRow Row(Func<string, string> cell, char separator)
    {
        double? Number(string name, double least, double most)
        {
            if (cell(name) is not { Length: > 0 } text) return null;
            var range = $"{Figure.Of(least)} to {Figure.Of(most)}";
            return Csv.Number(text, separator) is { } n && n >= least && n <= most ? n : throw Wrong(name, text, range,
                $"is not a figure from {range}");
        }

        TorqueQuantity? Torque(string name) => Number(name, 0, 1000) is { } n ? TorqueQuantity.FromNewtonMeters(n) : null;
        bool Said(string name) => cell(name) switch
        {
            "yes" => true,
            "no" => false,
            var other => throw Wrong(name, other, "yes or no", "is neither yes nor no"),
        };
        var roles = Enum.GetValues<FastenerRole>();
        var role = roles.Where(r => Csv.Word(r) == cell("fastener")).Cast<FastenerRole?>().FirstOrDefault()
            ?? throw Wrong("fastener", cell("fastener"), string.Join(", ", roles.Select(Csv.Word)),
                "is no fastener that is known here");
        Side? side = cell("side") switch
        {
            "left" => Core.Side.Left,
            "right" => Core.Side.Right,
            "car" => null,
            var other => throw Wrong("side", other, "left, right or car", "is not left, right or car"),
        };
        var when = cell("signed_at");
        var at = DateTimeOffset.TryParse(when, CultureInfo.InvariantCulture, DateTimeStyles.AssumeUniversal, out var t) ? t
            : throw Wrong("signed_at", when, "a day and time, ISO 8601", "is no day and time");
        return new(side, role, (int?)Number("index", 1, 10) ?? throw Wrong("index", "nothing", "1 to 10", "is missing"),
            Torque("wanted_nm") ?? throw Wrong("wanted_nm", "nothing", "0 to 1000", "is missing"),
            Number("then_angle_deg", 0, 360) is { } deg ? Angle.FromDegrees(deg) : null, Torque("set_nm"), Torque("applied_low_nm"),
            Torque("applied_high_nm"), Csv.Plain(cell("wrench")), Said("verified"), Said("hand_tight"), Csv.Plain(cell("signed_by")), at);
    }

    private static InputException Wrong(string field, string value, string allowed, string says) =>
        new(new InputError(field, Figure.Shorten(value), allowed, $"{field} \"{Figure.Shorten(value)}\" {says}."));

    private static string Nm(TorqueQuantity? torque) => torque is { } t ? Figure.Of(t.NewtonMeters) : "";
    private static string YesNo(bool yes) => yes ? "yes" : "no";
}
