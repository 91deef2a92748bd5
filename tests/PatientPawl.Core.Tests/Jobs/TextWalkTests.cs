using System.Text.RegularExpressions;
using PatientPawl.Core.Identification;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Retraction;
using PatientPawl.Core.Tests.Planning;
using PatientPawl.Core.Torque;
using PatientPawl.Core.Vehicles;
using PatientPawl.Core.Workshop;
using UnitsNet;
using Xunit.Abstractions;

namespace PatientPawl.Core.Tests.Jobs;

/// <summary>Every sentence of every step is read in every kind of job, and against what is so in it: rule, sheet, route, side, ruling.</summary>
public partial class TextWalkTests(ITestOutputHelper output)
{
    private sealed record Read(StepBench Bench, JobState State, string Text)
    {
        public Side? Side => Bench.Step.Side;
        public Ruling? Ruling => Side is { } s ? State.Corner(s).Ruled?.Ruling : null;
        public HouseRules Rules => State.Setup.Rules;
        public string Id => Bench.Step.StepId;
    }

    // What a sentence must say, or must not, by what is so. Each is a fact of the trade or of the house: common practice, no source.
    private static readonly (string Fact, Func<Read, bool> Where, Func<Read, bool> Holds)[] Facts =
    [
        ("a piston that turns is turned, in its own direction", r => r.Id is "piston-home" or "piston-tried" && r.Ruling is { Turned: true },
            r => r.Text.Contains($"Turned {(r.Ruling!.Direction == TurnDirection.Anticlockwise ? "anticlockwise" : "clockwise")}", StringComparison.Ordinal) && !Pushed().IsMatch(r.Text)),
        ("a piston that is pushed is never turned", r => r.Id is "piston-home" or "piston-tried" && r.Ruling is { Turned: false }, r => r.Text.Contains("Pushed straight", StringComparison.Ordinal) && !Turned().IsMatch(r.Text)),
        ("nothing of a screw piston reads push it in", r => r.Ruling is { Turned: true }, r => !Pushed().IsMatch(r.Text)),
        ("the slot is asked for only where the pad has a pin", r => r.Id == "piston-home",
            r => r.Text.Contains("slot", StringComparison.Ordinal) == (r.Ruling is { Turned: true, Slots: > 0 } && r.State.Opened!.Sheet.PadSet is { Pin: Known.Yes })),
        ("the cap comes off only where the house wants it", _ => true, r => r.Rules.Cap == CapRule.OffWithRag || (r.Id != "cap-off" && !r.Text.Contains("Cap off", StringComparison.OrdinalIgnoreCase))),
        ("strokes are the house's", r => r.Id == "pedal-proved", r => r.Text.Contains(r.Rules.PumpUp == PumpRule.HalfStrokes ? "half strokes" : "Full strokes", StringComparison.Ordinal) && r.Text.Contains("engine off", StringComparison.Ordinal)),
        ("a scan tool is spoken of only where one is used", _ => true, r => r.State.Setup.ByTool || (!r.Bench.Tools.Contains("scan tool") && !ToolTalk().IsMatch(r.Text))),
        ("service is entered the way that was chosen", r => r.Id is "service-entered" or "service-entered-car" or "puller-released",
            r => r.Id == (r.State.Setup.ByTool ? "service-entered" : r.State.Setup.ByInCar ? "service-entered-car" : "puller-released")),
        ("shoes by count say the count, by clearance the bench's clicks", r => r.Id is "shoes-set" or "new-shoes-set",
            r => r.Rules.StarWheel == StarWheelRule.ByCount ? r.Text.Contains("cannot be turned by hand, then 12 clicks back", StringComparison.Ordinal) : r.Text.Contains("shoe bench", StringComparison.Ordinal) && !r.Text.Contains("by hand, then", StringComparison.Ordinal)),
        ("the hole stands where the sheet says", r => r.Id is "shoes-set" or "new-shoes-set", r => r.Text.Contains("hole at 6 o'clock", StringComparison.OrdinalIgnoreCase)),
        ("a pin is held only where it turns", r => r.Id is "caliper-off" or "slide-pins-torqued",
            r => r.State.Opened!.Sheet.Line(FastenerRole.SlidePin)!.HoldingSpanner
                ? r.Bench.Tools.Contains("thin holding spanner") && r.Text.Contains("thin spanner", StringComparison.Ordinal)
                : !r.Bench.Tools.Contains("thin holding spanner") && r.Text.Contains("do not turn", StringComparison.Ordinal)),
        ("pilots by the house rule", r => r.Id is "hub-clean" or "wheel-on", r => r.Text.Contains("mear of anti-seize", StringComparison.Ordinal) == (r.Rules.HubPilot == PilotRule.Smear)),
        ("film under the clips by the house rule", r => r.Id == "lands-clean", r => r.Text.Contains("thin film", StringComparison.Ordinal) == (r.Rules.UnderClips == ClipsRule.Film) && r.Bench.Parts.Contains("protective film for under the clips") == (r.Rules.UnderClips == ClipsRule.Film)),
        ("grease on pad ears by the house rule", r => r.Id == "lands-clean", r => r.Text.Contains("grease", StringComparison.Ordinal) == (r.Rules.PadEars == PadEarsRule.Greased)),
        ("the boot's lip by the house rule", r => r.Id == "piston-home", r => r.Bench.Parts.Any(p => p.Contains("boot lip", StringComparison.Ordinal)) == (r.Rules.Boot == BootRule.Greased)),
        ("the bleed screw opens with each push only in that school", r => r.Id == "piston-home", r => r.Text.Contains("Bleed screw open", StringComparison.Ordinal) == (r.Rules.FluidRoom == FluidRoomRule.OpenBleeder)),
        ("wheel threads by the house rule", r => r.Id == "wheel-torqued", r => r.Text.Contains("Threads dry", StringComparison.Ordinal) == (r.Rules.Studs == StudsRule.Dry)),
        ("wheel nuts again only where the house asks for it", r => r.Id == "handed-over", r => r.Text.Contains("50 to 80 km", StringComparison.Ordinal) == (r.Rules.Retorque == RetorqueRule.Recheck)),
        ("one bed-in school, the house's", r => r.Id == "handed-over", r => r.Text.Contains("no heavy stops", StringComparison.Ordinal) == (r.State.Setup.PadsNew && r.Rules.BedIn == BedInRule.Gentle)),
        ("a series is driven only in the school that has one", r => r.Id == "bed-in", r => r.Rules.BedIn == BedInRule.Series),
        ("the hose is clamped only where the house clamps", _ => true, r => !r.Bench.Tools.Any(t => t.Contains("hose clamp", StringComparison.Ordinal)) || r.Rules.Hose == HoseRule.Clamp),
        ("a corner is bled alone, or with the other, as it is", r => r.Id == "corner-bled",
            r => r.Rules.Bleeding == BleedRule.Always ? r.Text.Contains("All four, in the sheet's order", StringComparison.Ordinal)
                : r.Text.Contains("This corner only", StringComparison.Ordinal) != r.State.Remaining.Contains(new("corner-bled", r.Side!.Value.Other()))),
        ("the drum is degreased where shoes run in it", r => r.Id == "rotor-degreased", r => r.Text.Contains("drum", StringComparison.Ordinal) == r.State.Setup.IsHat),
        ("a simulated pedal proves nothing by feel", r => r.Id == "leaks-looked", r => r.Text.Contains("simulated", StringComparison.Ordinal) == r.State.Setup.SimulatedPedal),
        ("a motor's lead and a cable carry no weight", r => r.Id is "caliper-off", r => r.Text.Contains("lead hangs slack", StringComparison.Ordinal) == r.State.Setup is { IsMotor: true, InService: true } && r.Text.Contains("its cable", StringComparison.Ordinal) == r.State.Setup.HasLever),
        Said("the engine is on only later, and the first small drop is the servo", "test-driven", "the first small drop is the servo"),
        Said("pads slide by hand, the spring pressed down as the first one starts", "pads-in", "slide by hand, the spring pressed down"),
        Said("paste or film on backs where it is called for, never on a lining", "pads-in", "never on a lining"),
        Said("old clips that stay are whole and the right way round", "pads-back", "whole, springy and the right way round"),
        Said("both bolts are started by hand, and a caliper that does not pass over is not drawn on", "caliper-on", "never drawn on with its bolts"),
        Said("pins get rubber-safe grease, and never copper", "pins-greased", "Never copper"),
        ("grease for the pins is laid out", r => r.Id == "pins-greased", r => r.Bench.Parts.Any(p => p.Contains("rubber-safe", StringComparison.Ordinal))),
        Said("oil film off a new rotor; a coating stays on all but the braking track", "rotor-on", "a coating stays on all but the braking track"),
        Said("a light even hiss at the first turn is normal", "turns-free", "hiss of pads is normal"),
        Said("a soft pedal comes back", "handed-over", "a soft pedal comes back"),
        ("new pads bite less until bedded, and a light hiss is normal; of old ones nobody says so", r => r.Id == "handed-over", r => r.Text.Contains("bite less until bedded, and a light even hiss is normal", StringComparison.Ordinal) == r.State.Setup.PadsNew),
        Said("stands under the maker's points", "lifted", "under the maker's points"),
        Said("volts at rest before the charger", "battery-held", "Volts at rest first"),
        Said("a locking nut by hand, with its key", "nuts-cracked wheel-torqued", "ocking nut by hand"),
        ("a corner's step never names the other corner", r => r.Side is not null, r => !OtherSide(r.Side!.Value).IsMatch(r.Text)),
        ("the wear sensor is spoken of at its own corner only", r => r.Bench.Pads is not null, r => r.Bench.Pads!.Parts.ElectricSensor == (r.Side == Core.Side.Left)),
        ("numbers agree with their nouns", _ => true, r => !Singular().IsMatch(r.Text) && !Plural().IsMatch(r.Text)),
        ("a sentence is whole", _ => true, r => r.Text.Length == 0 || (!Broken().IsMatch(r.Text) && r.Bench.How.Length > 0 == (r.Bench.How.Length > 0 && ".:!?".Contains(r.Bench.How[^1], StringComparison.Ordinal)))),
    ];

    private static (string, Func<Read, bool>, Func<Read, bool>) Said(string fact, string ids, string words) =>
        (fact, r => ids.Split(' ').Contains(r.Id), r => r.Text.Contains(words, StringComparison.Ordinal));

    /// <summary>What every text is read against.</summary>
    internal static IEnumerable<string> FactNames => Facts.Select(f => f.Fact);

    [GeneratedRegex(@"\bpush(ed)? (it|straight|the piston) ?(in|home|straight)?\b", RegexOptions.IgnoreCase)] private static partial Regex Pushed();
    [GeneratedRegex(@"\b(turned|wind|wound) (it |the piston )?(anti)?clockwise", RegexOptions.IgnoreCase)] private static partial Regex Turned();
    [GeneratedRegex(@"\bthe tool('s| says| drives)", RegexOptions.IgnoreCase)] private static partial Regex ToolTalk();
    [GeneratedRegex(@"\b1 (clicks|turns|strokes|bolts|screws|nuts|draws|steps)\b")] private static partial Regex Singular();
    [GeneratedRegex(@"(?<![\d.])([2-9]|\d\d+) (click|turn|stroke|bolt|screw|nut|draw|step)\b")] private static partial Regex Plural();
    [GeneratedRegex(@"  |\{|\}|\bnull\b|\. \.|\.\.|,,|\( |PatientPawl|NotKnown")] private static partial Regex Broken();
    private static Regex OtherSide(Side side) => new($@"\bthe {side.Other().Word()} (corner|side|caliper|wheel|rotor)\b", RegexOptions.IgnoreCase);

    [Fact]
    public void Every_sentence_of_every_step_follows_rule_sheet_route_and_side()
    {
        var read = new int[Facts.Length];
        HashSet<string> steps = [], wrong = [];
        foreach (var (architecture, route, scope, rules, sheet, simulated) in Jobs())
        {
            foreach (var bench in Walk(architecture, route, scope, rules, sheet, simulated))
            {
                steps.Add(bench.Id);
                for (var i = 0; i < Facts.Length; i++)
                {
                    if (!Facts[i].Where(bench)) continue;
                    read[i]++;
                    if (!Facts[i].Holds(bench)) wrong.Add($"{Facts[i].Fact}: {bench.Bench.Step} of {architecture} by {route}: {bench.Text}");
                }
            }
        }

        output.WriteLine($"{Schools().Count()} settings of the house rules, every pair of answers among them; {read.Sum()} readings of {Facts.Length} facts in {steps.Count} kinds of steps");
        wrong.Take(8).ShouldBeEmpty($"{wrong.Count} sentences");
        Facts.Where((_, i) => read[i] == 0).Select(f => f.Fact).ShouldBeEmpty("a fact that is never asked proves nothing");
        // What is left out stands in a plan only after something was found, or is chosen.
        StepCatalogue.All.Where(s => s.Stage != Stage.Look && s.ByChoice != ByChoice.Only && !steps.Contains(s.Id)).Select(s => s.Id).Except(AfterAFinding).ShouldBeEmpty();
        AfterAFinding.Intersect(steps).ShouldBeEmpty("they are read here");
    }

    private static readonly string[] AfterAFinding =
    [
        "spindle-verified", "cable-looked", "circuit-looked", "ridge-backed", "star-wheel-again", "pads-kept-out", "new-shoes-off", "rotor-freed", "screw-decided", "swung-caliper-off", "verdict-settled", "right-part",
        "wrong-parts-out", "hardware-new", "pin-kit", "fluid-drawn", "piston-judged", "piston-looked", "push-tried", "old-caliper-back", "shoes-back", "caliper-down", "inspected", "service-verified", "service-looked",
        "nuts-cracked-raised", "nuts-snugged", "pipes-sound", "wheel-freed", "torques-accepted", "hub-mended", "speed-sensor-mended", "cable-renewed", "hose-renewed", "bleed-screw-renewed", "pads-eased",
        "pins-seated", "pitted-hub-judged", "ring-looked", "sensor-renewed", "lever-mended", "nut-key-found", "wheel-seated", "bracket-swapped", "actuator-renewed", "hose-looked", "lamp-seen-off", "trouble-settled",
        "old-caliper-away", "new-caliper-hung", "banjo-torqued", "cable-end-off", "cable-end-on", "self-pressure-off",
        "self-pressure-on", "actuator-seen-flush", "wrong-caliper-away", "hose-clamp-off", "pedal-traced", "brake-traced", "star-wheel-freed", "plate-motor-renewed", "tagged-off-road", "off-road-tag-off",
        .. Defects.All.Where(d => d.LeftBy != LeftBy.Anyone).Select(d => d.LeftOpenId),
    ];

    private static IEnumerable<(Architecture, ServiceRoute?, JobScope, HouseRules, SpecSheet, bool)> Jobs()
    {
        (Architecture Of, ServiceRoute? Route)[] kinds =
        [
            (Architecture.CableScrew, null), (Architecture.LeverPush, null), (Architecture.RearHex, null), (Architecture.Plain, null), (Architecture.HatShoes, null), (Architecture.FixedHat, null),
            (Architecture.SpotCaliper, null), (Architecture.PullerScrew, ServiceRoute.PullerRelease), (Architecture.PullerHat, ServiceRoute.ScanTool), (Architecture.MotorHat, ServiceRoute.InCar),
            (Architecture.MotorPush, ServiceRoute.ScanTool), (Architecture.MotorPush, ServiceRoute.InCar), (Architecture.MotorPush, ServiceRoute.SpindleByHand), (Architecture.MotorTurn, ServiceRoute.ScanTool), (Architecture.MotorTurn, ServiceRoute.SpindleByHand),
        ];
        var schools = Schools().ToArray();
        foreach (var (of, route) in kinds)
        {
            for (var i = 0; i < schools.Length; i++)
            {
                var sheet = Sheet(of, i % 2 == 0, i % 3 == 0, screws: i % 4 != 1, singleUse: i % 7 == 3);
                var hat = of is Architecture.HatShoes or Architecture.PullerHat or Architecture.MotorHat or Architecture.FixedHat;
                yield return (of, route, !hat || i % 3 == 1 ? JobScope.PadsAndRotors : i % 3 == 0 ? JobScope.Shoes : JobScope.PadsRotorsAndShoes, schools[i], sheet, i % 5 == 4);
            }
        }
    }

    /// <summary>The default house, and settings that hold every pair of answers to any two of its questions.</summary>
    private static IEnumerable<HouseRules> Schools() => [HouseRules.Default, .. Setups.PairsOf(HouseRuleCatalogue.All)];

    private static SpecSheet Sheet(Architecture of, bool pin, bool held, bool screws, bool singleUse)
    {
        var sheet = Bench.Sheet();
        return sheet with
        {
            Architecture = of,
            Piston = sheet.Piston with { DirectionRight = TurnDirection.Anticlockwise },
            Electric = of is Architecture.PullerScrew or Architecture.PullerHat or Architecture.MotorHat or Architecture.MotorPush or Architecture.MotorTurn ? new(false, null, "hex 6") : null,
            Rotor = sheet.Rotor with { HasScrews = screws },
            Drum = new(null, null, null, null, null, null, null, 12, null, null, null, null, false) { HoleAt = 6 },
            Fittings = Enum.GetValues<Fitting>(),
            PadSet = new(Core.Pads.PadEnd.Leading, pin ? Known.Yes : Known.No, SensorAt: SensorSide.Left),
            Torques = [.. sheet.Torques.Select(t => t.Role == FastenerRole.SlidePin ? t with { HoldingSpanner = held, SingleUse = singleUse } : t)],
        };
    }

    /// <summary>A whole job, each of its steps read before it is done. Events alone: what they prove is proved elsewhere.</summary>
    private static IEnumerable<Read> Walk(Architecture of, ServiceRoute? route, JobScope scope, HouseRules rules, SpecSheet sheet, bool simulated)
    {
        var job = new Bench().Do(_ => new JobOpened(1, 1, new("T 1", "Brae", "Test", "test car", null), 1000, "noise", scope, sheet, rules));
        job.Do(_ => new LookOverDone([new(LookOverQuestions.SimulatedPedal, simulated ? LookOverAnswer.Yes : LookOverAnswer.No), new(LookOverQuestions.SelfPressurising, LookOverAnswer.No)]));
        foreach (var side in Core.Sides.Both) job.Do(_ => new BrakeRuled(side, [of], RetractionRuling.Decide(of, side, sheet.Piston, false, of == Architecture.FixedHat), false));
        if (route is { } chosen) job.Do(_ => new RouteChosen(chosen));
        for (var steps = 0; job.State.Remaining.Length > 0 && steps < 250; steps++)
        {
            var key = job.State.Remaining[0];
            var bench = RunSheets.Bench(job.State, key);
            yield return new(bench, job.State, string.Join(" ", [bench.How, bench.Because, .. bench.Pads?.Placement.Lines ?? []]));
            job.Do(_ => new StepDone(key, false, [], [], [], null, null, null, null));
        }

        job.State.HandedOver.ShouldBeTrue($"{of} by {route}: {string.Join("; ", job.State.CannotBeMet)}");
    }
}
