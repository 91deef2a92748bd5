using System.Globalization;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.Extensions.DependencyInjection;
using PatientPawl.Core;
using PatientPawl.Core.Electric;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Torque;
using PatientPawl.Data;
using PatientPawl.Web.Documents;
using PatientPawl.Web.Electric;
using PatientPawl.Web.Measuring;
using UnitsNet;
using TorqueQuantity = UnitsNet.Torque;

namespace PatientPawl.Web.Tests;

/// <summary>What goes out in an open format comes back byte for byte, whatever stands in it.</summary>
public sealed class RoundTripTests(DemoShop demo) : IClassFixture<DemoShop>
{
    private const int Jobs = 1000;

    // Commas, quotes, line ends, signs that a spreadsheet takes for a formula, letters of other scripts.
    private static readonly string[] Words = ["left, inner", "\"so-called\"", "=1+1", "+44", "-", "@home", "'quoted", "Łódź", "тормоз",
        "車", "😀", "a;b", "x\ty", "0"];

    // Written for whoever reads the file, reckoned from the fields beside them.
    private static readonly string[] Reckoned = ["wantedNm", "thread", "permissibleDeviation"];

    private static string Word(Random random) => $"{Words[random.Next(Words.Length)]} {Words[random.Next(Words.Length)]}";

    private static double Figure(Random random, double least, double most) => Math.Round(least + random.NextDouble() * (most - least),
        random.Next(4));

    [Fact]
    public void A_thousand_jobs_of_every_kind_of_event_with_any_figures_and_words()
    {
        var samples = Directory.GetFiles(Path.Combine(Workshop.Repository, "tests", "PatientPawl.Web.Tests", "Samples", "format-1"),
            "??-*.json");
        JsonNode[] events = [.. samples.SelectMany(f => JsonNode.Parse(File.ReadAllText(f))!["events"]!.AsArray()).Select(e =>
            e!["content"]!)];
        events.Length.ShouldBeGreaterThan(500);
        var figures = 0;
        for (var seed = 0; seed < Jobs; seed++)
        {
            var random = new Random(seed);
            for (var i = 0; i < 20; i++)
            {
                var changed = events[random.Next(events.Length)].DeepClone();
                figures += Change(changed, random);
                var once = Written(changed.ToJsonString());
                Written(System.Text.Encoding.UTF8.GetString(once)).ShouldBe(once);
                // And no figure or word was another on the way: what the sample had and today's form has too is alike.
                Differs(changed, JsonNode.Parse(once)!, "").ShouldBeNull();
            }
        }

        figures.ShouldBeGreaterThan(30 * Jobs);
    }

    private static byte[] Written(string content) =>
        JsonSerializer.SerializeToUtf8Bytes(JsonSerializer.Deserialize<StoredEvent>(content, PawlJson.Options), PawlJson.Options);

    // Other figures, to 8 decimals (a nanometre is written as the last), and other words where people write freely; ids, days and enumerations stay.
    private static int Change(JsonNode node, Random random)
    {
        var figures = 0;
        switch (node)
        {
            case JsonObject fields:
                foreach (var (name, value) in fields.ToArray())
                {
                    if (value is JsonValue leaf && leaf.GetValueKind() == JsonValueKind.Number && leaf.ToJsonString().Contains('.',
                        StringComparison.Ordinal))
                    {
                        fields[name] = Math.Round((double)leaf * (0.5 + random.NextDouble()), random.Next(1, 9));
                        figures++;
                    }
                    else if (name is "note" or "complaint" or "text" or "reason" or "technician" && value is JsonValue { } text && text.GetValueKind() == JsonValueKind.String)
                        fields[name] = Word(random);
                    else if (value is not null) figures += Change(value, random);
                }

                break;
            case JsonArray list:
                foreach (var item in list) if (item is not null) figures += Change(item, random);
                break;
            default:
                break;
        }

        return figures;
    }

    // The first place where the two differ, or null.
    private static string? Differs(JsonNode? was, JsonNode? now, string at) => (was, now) switch
    {
        (null, null) => null,
        (JsonObject a, JsonObject b) => a.Where(p => !Reckoned.Contains(p.Key)).Select(p => Differs(p.Value, b[p.Key], $"{at}.{p.Key}"))
            .FirstOrDefault(d => d is not null),
        (JsonArray a, JsonArray b) when a.Count == b.Count => a.Zip(b).Select((p, i) => Differs(p.First, p.Second, $"{at}[{i}]"))
            .FirstOrDefault(d => d is not null),
        (JsonValue a, JsonValue b) when Alike(a, b) => null,
        _ => $"{at}: {was?.ToJsonString()} is {now?.ToJsonString()}",
    };

    private static bool Alike(JsonValue a, JsonValue b) =>
        a.GetValueKind() == JsonValueKind.Number && b.GetValueKind() == JsonValueKind.Number ? Math.Abs((double)a - (double)b) <= 1e-12 * Math.Abs((double)a)
        : a.ToString() == b.ToString()
            || DateTimeOffset.TryParse(a.ToString(), CultureInfo.InvariantCulture, out var t) && t == DateTimeOffset.Parse(b.ToString(),
                CultureInfo.InvariantCulture);

    [Fact]
    public void A_thousand_jobs_torques()
    {
        for (var seed = 0; seed < Jobs; seed++)
        {
            var random = new Random(seed);
            TorqueQuantity? Maybe() => random.Next(3) == 0 ? null : TorqueQuantity.FromNewtonMeters(Figure(random, 0, 500));
            TorqueRow[] rows = [.. Enumerable.Range(0, random.Next(1, 25)).Select(_ => new TorqueRow(
                random.Next(3) switch { 0 => Side.Left, 1 => Side.Right, _ => null }, (FastenerRole)random.Next(8), random.Next(1, 11),
                TorqueQuantity.FromNewtonMeters(Figure(random, 0, 500)), random.Next(2) == 0 ? null : Angle.FromDegrees(random.Next(361)),
                Maybe(), Maybe(), Maybe(), random.Next(4) == 0 ? "" : Word(random), random.Next(2) == 0, random.Next(2) == 0, Word(random),
                new(2026, 1 + random.Next(12), 1 + random.Next(28), random.Next(24), random.Next(60), random.Next(60),
                    TimeSpan.FromMinutes(15 * random.Next(-48, 48)))))];
            var csv = TorqueCsv.Write(rows);
            var back = TorqueCsv.Read(csv);
            back.Lines.ShouldAllBe(l => l.Taken);
            TorqueCsv.Write(back.Torques).ShouldBe(csv);
            back.Torques.Select(t => (t.Side, t.Role, t.Index, t.Wanted.NewtonMeters, t.Wrench, t.By, t.At))
                .ShouldBe(rows.Select(t => (t.Side, t.Role, t.Index, Math.Round(t.Wanted.NewtonMeters, 3), t.Wrench, t.By, t.At)));
        }
    }

    [Fact]
    public void A_thousand_jobs_readings()
    {
        var board = demo.Shop.Services.GetRequiredService<ToolBoard>();
        var now = new DateTimeOffset(2026, 11, 3, 9, 30, 0, TimeSpan.Zero);
        for (var seed = 0; seed < Jobs; seed++)
        {
            var random = new Random(seed);
            PointReading[] readings = [.. Enumerable.Range(0, random.Next(1, 20)).Select(_ =>
            {
                var card = MeasurandCatalogue.All[random.Next(MeasurandCatalogue.All.Count)];
                var tool = board.OnHand.First(i => i.Serves(card.Use));
                var mm = Math.Round(card.Low.Millimeters + random.NextDouble() * (card.High.Millimeters - card.Low.Millimeters), 3);
                return new PointReading(Guid.NewGuid(), card.Measurand, card.Places[random.Next(card.Places.Count)],
                    card.HasDirection ? Angle.FromDegrees(random.Next(360)) : null,
                        Length.FromMillimeters(Math.Clamp(mm, card.Low.Millimeters, card.High.Millimeters)), tool,
                    random.Next(2) == 0 ? null : Figure(random, -10, 40), now.AddSeconds(-random.Next(100_000)));
            })];
            var csv = ReadingsCsv.Write(readings);
            var back = ReadingsCsv.Read(csv, board, now);
            back.Lines.ShouldAllBe(l => l.Taken, csv);
            ReadingsCsv.Write(ReadingIn.Resolve(back.Readings, board)).ShouldBe(csv);
        }
    }

    [Fact]
    public void A_thousand_current_traces()
    {
        for (var seed = 0; seed < Jobs; seed++)
        {
            var random = new Random(seed);
            var rate = new[] { 100, 200, 250, 500, 1000 }[random.Next(5)];
            var trace = CurrentTrace.From([.. Enumerable.Range(0, random.Next(20, 400)).Select(_ =>
                ElectricCurrent.FromAmperes(Figure(random, -30, 30)))], Frequency.FromHertz(rate));
            var csv = TraceCsv.Write(trace);
            TraceCsv.Write(TraceCsv.Read(System.Text.Encoding.ASCII.GetString(csv))).ShouldBe(csv);
        }
    }
}
