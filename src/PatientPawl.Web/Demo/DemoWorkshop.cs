using Microsoft.AspNetCore.Identity;
using PatientPawl.Core;
using PatientPawl.Core.Identification;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Practice;
using PatientPawl.Core.Retraction;
using PatientPawl.Core.Torque;
using PatientPawl.Core.Vehicles;
using PatientPawl.Core.Workshop;
using PatientPawl.Data;
using PatientPawl.Web.Hosting;
using UnitsNet;
using TorqueQuantity = UnitsNet.Torque;

namespace PatientPawl.Web.Demo;

/// <summary>
/// Gannet Sound Community Transport, an island depot. Everything in it is invented: makers, models, people, plates, limits
/// and torques. The jobs are driven through the same rules as real ones.
/// </summary>
public sealed class DemoWorkshop(StartOptions options, Library library, EventStore events, IPasswordHasher<Technician> hasher, TimeProvider clock)
{
    private const string DemoPin = "2580";

    /// <summary>The PIN to show on the sign-in page; null outside the demo.</summary>
    public string? Pin => options.Demo && library.Setting("demo") == "yes" ? DemoPin : null;

    /// <summary>Fills a database that has no technicians and no events; leaves any other alone.</summary>
    public void FillWhenEmpty()
    {
        if (library.Technicians().Count > 0 || events.JobIds().Count > 0) return;
        library.Name("Gannet Sound Community Transport");
        library.SetSetting("demo", "yes");
        var people = new[] { ("Kit Ransome", true), ("Ines Marrow", false), ("Oona Firth", false), ("Tor Aske", false), ("Sol Penhale", false) }
            .Select(p => Add(p.Item1, p.Item2)).ToDictionary(t => t.Name.Split(' ')[0]);
        AddWrenches();
        AddInstruments();
        foreach (var sheet in InventedCars.Sheets) library.Save(sheet.Checked());
        foreach (var (vehicle, code) in InventedCars.Vehicles) library.Save(new KnownVehicle(vehicle.Checked(), code));
        Jobs(people);
        Learner(people["Oona"]);
    }

    // One who learns: cards of three days, what she showed last month, and a run that went wrong and was talked over.
    private void Learner(Technician who)
    {
        var now = clock.GetLocalNow();
        var cards = CardSet.All.Take(14).ToArray();
        for (var i = 0; i < cards.Length; i++) library.Put(who.Id, cards[i].Id, i % 4 != 3, now.AddDays(-3 + i % 3));
        var on = DateOnly.FromDateTime(now.DateTime.AddDays(-30));
        library.Show(who.Id, [Competence.Retract, Competence.Record], "lever-and-screw", on);
        library.Show(who.Id, [Competence.Retract, Competence.Record], "stuck-piston", on.AddDays(5));
        library.Show(who.Id, [Competence.Torque], "two-units", on.AddDays(9));

        var (run, version) = (Guid.NewGuid(), 0);
        void Do(Func<JobState, JobEvent> decide) =>
            events.Append(run, Guid.NewGuid(), version++, "demo", new(who.Id, who.Name, now.AddHours(-20)) { RecordedAt = now.AddHours(-20) }, decide).GetAwaiter().GetResult();
        Do(_ => PracticeRules.Start(ScenarioSet.Find("early-close")!, PracticeWay.Alone, 7, HouseRules.Default, library.Instruments()));
        Do(s => JobRules.LookOver(s, DemoDriver.LookedOver()));
        foreach (var side in Core.Sides.Both)
        {
            foreach (var look in LookCatalogue.All.Where(l => l.Reach <= LookReach.WheelOff)) Do(s => JobRules.Record(s, side, look.Look, PracticeRules.Sight(s, side, look.Look)));
            Do(s => JobRules.Rule(s, side));
        }

        foreach (var step in new StepKey[] { new("piston-home", Side.Left), new("lifted", null) }) Do(s => PracticeRules.Pick(s, step)!);
        Do(PracticeRules.Help);
        Do(PracticeRules.End);
    }

    private void AddWrenches()
    {
        Wrench Make(string id, string name, double max, double step, double grip) =>
            new(id, name, TorqueQuantity.FromNewtonMeters(max), TorqueQuantity.FromNewtonMeters(step), Length.FromMillimeters(grip), WrenchType.Setting, new DateOnly(2027, 6, 30));
        library.Save(Make("W1", "Quarter-inch click", 25, 0.2, 220));
        library.Save(Make("W2", "Three-eighths click", 60, 0.5, 310));
        library.Save(Make("W4", "Half-inch click", 200, 0.2, 400));
        var longest = Make("W5", "Half-inch long click", 320, 1, 620);
        library.Save(longest);
        // One that drifts, by two certificates a year apart.
        var today = DateOnly.FromDateTime(clock.GetLocalNow().DateTime);
        WrenchCertificate Certificate(string number, int daysAgo, params (double Set, double Found, double Left)[] points) =>
            new(longest.Id, number, today.AddDays(-daysAgo), today.AddDays(365 - daysAgo), 0.6, [.. points.Select(p =>
                new CalibrationPoint(TorqueQuantity.FromNewtonMeters(p.Set), TorqueQuantity.FromNewtonMeters(p.Found), TorqueQuantity.FromNewtonMeters(p.Left)))]);
        WrenchCertificate[] certificates =
        [
            Certificate("GS-1140", 378, (65, 64.2, 64.9), (190, 188.1, 189.6), (320, 316.5, 319.0)),
            Certificate("GS-1312", 13, (65, 63.9, 64.8), (190, 186.4, 189.7), (320, 314.1, 319.4)),
        ];
        foreach (var certificate in certificates)
        {
            library.Save(longest.By([.. certificates.Where(c => c.On <= certificate.On)]), certificate, null);
        }
    }

    // Certificates run on for a year or so; the old vernier's has run out.
    private void AddInstruments()
    {
        var today = DateOnly.FromDateTime(clock.GetLocalNow().DateTime);
        library.SetInstruments([.. InstrumentCatalogue.Defaults.Select(i => i with
        {
            IsDefault = i.Id is "steel-rule" or "pad-gauge",
            CalibratedUntil = i.Id is "steel-rule" or "pad-gauge" ? null : today.AddDays(i.Id == "vernier" ? -26 : 210),
        })]);
    }

    private Technician Add(string name, bool lead)
    {
        var t = new Technician(Guid.NewGuid(), name, lead, "");
        t = t with { PinHash = hasher.HashPassword(t, DemoPin) };
        library.Add(t);
        return t;
    }

    private void Jobs(Dictionary<string, Technician> who)
    {
        var now = clock.GetLocalNow();
        DemoDriver Job(string plate, string person, int bay, int km, string complaint, JobScope scope, double hoursAgo, DemoReadings left, DemoReadings right, int level = 62)
        {
            var (vehicle, code) = InventedCars.Vehicles.First(v => v.Vehicle.Plate == plate);
            return new DemoDriver(events, library, who[person], now.AddHours(-hoursAgo), left, right, level).Open(bay, vehicle, library.Sheet(code)!, km, complaint, scope);
        }

        // Two years and more behind five of them: pads fitted, then looked at as they wear.
        void Years(string plate, string person, int bay, Observation[] looks, ServiceRoute? route, params (int DaysAgo, int Km, double Pad, double Rotor)[] visits)
        {
            var sheet = library.Sheet(InventedCars.Vehicles.First(v => v.Vehicle.Plate == plate).Code)!;
            foreach (var (days, km, pad, rotor) in visits)
            {
                var fits = (days, km) == (visits[0].DaysAgo, visits[0].Km);
                // A piston stands as far out as its pads are worn.
                DemoReadings Corner(double inner, double outer) =>
                    new(inner, outer, rotor, Math.Round(sheet.Piston.HomeProtrusion!.Value.Millimeters + (sheet.Pads.NewInnerTotal + sheet.Pads.NewOuterTotal).Millimeters - inner - outer + 1.6, 1));
                var job = Job(plate, person, bay, km, fits ? "Pads worn" : "Yearly look at the brakes", fits ? JobScope.Pads : JobScope.Inspect, 24 * days, Corner(pad, pad + 0.6), Corner(pad - 0.2, pad + 0.5)).Look(looks);
                // The fluid takes up water as the years go.
                if (!fits) job.Water(Math.Round(2 - days / 600.0, 1));
                // Which way its star wheels loosen is noted once.
                if (fits && looks == DemoLooks.Hat) job.StarWheel(Side.Left, WheelWay.Up).StarWheel(Side.Right, WheelWay.Down);
                if (fits && route is { } way) job.Route(way);
                job.ToTheEnd();
            }
        }

        Years("GNT 512", "Sol", 5, DemoLooks.Motor, ServiceRoute.SpindleByHand, (720, 12_040, 7.9, 11.98), (500, 27_400, 13.7, 11.9), (260, 43_900, 11.3, 11.82), (60, 57_010, 9.4, 11.74));
        Years("GNT 301", "Ines", 4, DemoLooks.Motor, ServiceRoute.SpindleByHand, (705, 83_200, 8.1, 11.96), (420, 103_500, 13.1, 11.88), (180, 120_600, 11.0, 11.8));
        Years("GNT 420", "Sol", 6, DemoLooks.Cable, null, (690, 48_200, 7.5, 9.94), (470, 59_900, 13.6, 9.82), (230, 72_300, 12.2, 9.66));
        Years("GNT 118", "Tor", 1, DemoLooks.Hat, null, (640, 21_350, 7.6, 9.21), (300, 34_600, 12.7, 9.15), (90, 42_500, 10.8, 9.1));
        Years("GNT 164", "Oona", 3, DemoLooks.Cable, null, (610, 61_000, 7.4, 9.8), (400, 74_400, 13.4, 9.68), (150, 89_900, 11.7, 9.5));
        Job("GNT 420", "Sol", 6, 84_180, "Squeal when braking gently", JobScope.Pads, 5, new(11.2, 12.0, 9.52, 9.7), new(10.9, 11.9, 9.55, 10.1))
            .Look(DemoLooks.Cable).ToTheEnd();
        Job("GNT 512", "Sol", 5, 61_020, "Scraping from the rear right", JobScope.Pads, 3, new(9.6, 11.2, 11.7, 14.6), new(8.6, 11.0, 11.68, 15.8))
            .Look(DemoLooks.Motor).Route(ServiceRoute.SpindleByHand).Until("pedal-proved", null);
        Job("GNT 301", "Oona", 4, 132_450, "Due for pads, brake lamp seen", JobScope.Pads, 0.5, new(8, 9, 11.7, 14), new(8, 9, 11.7, 14))
            .LookOver().Looks(Side.Left, [new(Look.CabinControl, Seen.Switch), new(Look.CaliperLever, Seen.No), new(Look.CaliperMotor, Seen.Yes), new(Look.PlateCable, Seen.No), new(Look.PlateMotor, Seen.No)]);
        Job("GNT 164", "Oona", 3, 98_730, "Pulls left, left wheel hot", JobScope.Pads, 3.2, new(10.6, 12.2, 9.42, 10.9), new(12.0, 12.6, 9.5, 8.7))
            .Look(DemoLooks.Cable).Until("piston-home", Side.Left)
            .Piston(Side.Left, RetractionFacts.None with { Boot = BootState.Free, PressedHarder = true, RoomForFluid = Known.Yes }).Follow(Side.Left, 14, 10.9, 10.9, 10.9, 10.9).StopSign(Side.Left, StopSign.StopsShort, "Both ways tried, cable off, screw open. No movement.").Until("piston-home", Side.Right)
            .Piston(Side.Right, RetractionFacts.None with { SlotAt = Angle.FromDegrees(18), Boot = BootState.Free }).Follow(Side.Right, 6, 8.7, 7.9, 7.11, 6.3, 5.51, 4.7);
        Job("GNT 207", "Ines", 2, 74_310, "Pads and rotors, third year of salt", JobScope.PadsAndRotors, 2.4, new(12.4, 13.2, 9.94, 13.0), new(12.0, 13.0, 10.06, 13.6))
            .Look(DemoLooks.Motor).Route(ServiceRoute.ScanTool).Until("bracket-torqued", Side.Left).SignOne(new(Length.FromMillimeters(50), Angle.Zero));
        Job("GNT 118", "Tor", 1, 45_900, "Parking brake weak, meals round", JobScope.Shoes, 2.6, new(9.9, 10.3, 9.06, 13.6), new(10.0, 10.5, 9.08, 13.2))
            .Look(DemoLooks.Hat).Until("measured", Side.Left)
            .Rotor(Side.Left, [9.07, 9.07, 9.07, 9.06, 9.06, 9.07, 9.07, 9.07], [0, 0.01, 0.02, 0.03, 0.03, 0.02, 0.01, 0, -0.02, -0.02, -0.02, -0.01]).Pads(Side.Left, 4.6, 4.4, 5.0, 4.9).Pads(Side.Right, 4.8, 4.7, 5.1, 5.0)
            .Until("shoes-measured", Side.Left)
            .Drum(Side.Left, [190.90, 190.94, 190.96, 190.92, 190.84, 190.88, 190.92, 190.86], [2.1, 2.4, 1.9, 2.2, 2.5, 2.0], 190.1)
            .Until("verdict-settled", Side.Left);
    }
}

/// <summary>Old pads, rotor and protrusion of one corner, mm.</summary>
public sealed record DemoReadings(double Inner, double Outer, double Rotor, double Protrusion);

/// <summary>What a technician would see on the demo's cars.</summary>
internal static class DemoLooks
{
    private static readonly Observation[] Common =
        [new(Look.BrakeByWire, Seen.No), new(Look.PlateMotor, Seen.No), new(Look.SecondCaliper, Seen.No), new(Look.BrakeHose, Seen.Yes), new(Look.OpposedPistons, Seen.No)];

    public static readonly Observation[] Cable =
        [new(Look.CabinControl, Seen.HandLever), new(Look.CaliperLever, Seen.Yes), new(Look.CaliperMotor, Seen.No), new(Look.PlateCable, Seen.No), new(Look.RearHexPlug, Seen.No), .. Common];
    public static readonly Observation[] Motor =
        [new(Look.CabinControl, Seen.Switch), new(Look.CaliperLever, Seen.No), new(Look.CaliperMotor, Seen.Yes), new(Look.PlateCable, Seen.No), new(Look.PistonFace, Seen.PlainCup), .. Common];
    public static readonly Observation[] Hat =
        [new(Look.CabinControl, Seen.HandLever), new(Look.CaliperLever, Seen.No), new(Look.CaliperMotor, Seen.No), new(Look.PlateCable, Seen.Yes), new(Look.HatHole, Seen.Yes), .. Common];
}
