using PatientPawl.Core.Reasoning;
using PatientPawl.Core.Vehicles;
using PatientPawl.Core.Workshop;
using UnitsNet;

namespace PatientPawl.Core.Hydraulics;

/// <summary>What can have opened the hydraulics.</summary>
public enum CircuitOpening
{
    /// <summary>A hose or banjo was off.</summary>
    HoseOff,
    /// <summary>A caliper was renewed.</summary>
    CaliperRenewed,
    /// <summary>A bleed screw was opened, hose pinched or not.</summary>
    BleedScrewOpened,
    /// <summary>The pedal was pressed with a piston out.</summary>
    PedalWithPistonOut,
    /// <summary>The reservoir ran dry.</summary>
    ReservoirDry,
    /// <summary>Fluid showed where the circuit should be shut.</summary>
    FluidShown,
}

/// <summary>Something that opened the hydraulics, and where.</summary>
/// <param name="What">What happened.</param>
/// <param name="Side">The corner; null for the reservoir, and for fluid that showed anywhere.</param>
public sealed record Opening(CircuitOpening What, Side? Side);

/// <summary>What has to be bled.</summary>
public enum BleedScope
{
    /// <summary>Nothing: it stayed closed.</summary>
    Nothing,
    /// <summary>One corner.</summary>
    OneCorner,
    /// <summary>All four, in the maker's order.</summary>
    All,
    /// <summary>A short bleed, by the house rule.</summary>
    Short,
}

/// <summary>Whether it is bled, and where.</summary>
/// <param name="Scope">What.</param>
/// <param name="Corner">The corner, when it is one.</param>
/// <param name="Says">In words, with order and washers.</param>
/// <param name="Reasons">Why.</param>
public sealed record BleedDecision(BleedScope Scope, Side? Corner, IReadOnlyList<string> Says, Reasons Reasons) : IReasoned;

/// <summary>A way of bleeding.</summary>
public enum BleedMethod
{
    /// <summary>Two people: open, down, close, up.</summary>
    TwoPerson,
    /// <summary>Vacuum at the screw.</summary>
    Vacuum,
    /// <summary>Gravity.</summary>
    Gravity,
    /// <summary>Pressure at the reservoir.</summary>
    Pressure,
    /// <summary>One person, the tube's end under fluid.</summary>
    TubeInFluid,
}

/// <summary>One draw at a bleed screw.</summary>
/// <param name="Id">Made where it was taken.</param>
/// <param name="Volume">Fluid drawn, 0.5 to 500 mL.</param>
/// <param name="Bubbles">True when bubbles came.</param>
/// <param name="ColourChanged">True when its colour differed from the draw before.</param>
/// <param name="Clear">True when it was clear.</param>
/// <param name="Filled">True when the reservoir was filled to MAX after it.</param>
public sealed record BleedDraw(Guid Id, Volume Volume, bool Bubbles, bool ColourChanged, bool Clear, bool Filled = false);

/// <summary>What the bleeding is followed with.</summary>
/// <param name="Method">The method.</param>
/// <param name="Draws">Draws in order, at most 200.</param>
/// <param name="Reservoir">Band and headspace.</param>
/// <param name="LevelPercent">Level at the first draw, 0 to 150 %.</param>
/// <param name="DrawVolume">What a draw takes, 0.5 to 500 mL; null takes the mean so far, or the flagged default of 15 mL.</param>
public sealed record BleedInput(BleedMethod Method, IReadOnlyList<BleedDraw> Draws, ReservoirSpec Reservoir, double LevelPercent, Volume? DrawVolume);

/// <summary>Where the bleeding stands.</summary>
/// <param name="Steps">How the method goes, in order.</param>
/// <param name="Drawn">Fluid drawn in all.</param>
/// <param name="LevelPercent">Level now.</param>
/// <param name="DrawsBeforeFilling">Whole draws left before the level reaches MIN; 0 means fill first.</param>
/// <param name="ClearInARow">Clear draws in a row, without bubbles or change of colour.</param>
/// <param name="RanDry">True when the reservoir went under MIN by the figures: it may have drawn air.</param>
/// <param name="Done">True when the stop test is met.</param>
/// <param name="Says">What to do now.</param>
/// <param name="Reasons">Why.</param>
public sealed record BleedAnswer(IReadOnlyList<string> Steps, Volume Drawn, double LevelPercent, int DrawsBeforeFilling, int ClearInARow, bool RanDry, bool Done, string Says, Reasons Reasons) : IReasoned;

/// <summary>Decides whether to bleed, and follows it to its end.</summary>
[Engine]
public static class Bleeding
{
    /// <summary>A draw when none has been taken: 15 mL.</summary>
    public static Volume DefaultDraw { get; } = Volume.FromMilliliters(15);

    /// <summary>Opened at one corner: that corner. At both, or the reservoir dry: all, in the maker's order. Never opened: nothing, or a short bleed where the house rule wants one.</summary>
    /// <param name="openings">What opened it, at most 50.</param>
    /// <param name="order">The maker's order when all are bled; null when the sheet is silent.</param>
    /// <param name="rule">The house rule.</param>
    /// <exception cref="InputException">A corner missing where one belongs.</exception>
    public static BleedDecision Decide(IReadOnlyList<Opening> openings, string? order, BleedRule rule)
    {
        ArgumentNullException.ThrowIfNull(openings);
        var checks = new Checks().Range("openings", openings.Count, 0, 50, "");
        foreach (var o in openings)
            if (!Enum.IsDefined(o.What) || (o.What == CircuitOpening.ReservoirDry ? o.Side is not null : o.What != CircuitOpening.FluidShown && o.Side is null))
                checks.Add("side", o.Side?.Word() ?? "none", o.What == CircuitOpening.ReservoirDry ? "none" : "left or right", "Say at which corner it was opened; the reservoir belongs to none.");
        checks.ThrowIfAny();
        var trail = new Trail("Bleeding.Decide");
        foreach (var o in openings) trail.Evidence(o.Side is { } s ? s.Word() : "reservoir", Words(o.What), "practice-bleeding");
        var sides = openings.Select(o => o.Side).OfType<Side>().Distinct().ToArray();
        // Fluid that showed nobody knows where may be from any of them.
        var dry = openings.Any(o => o.Side is null);
        var scope = dry || sides.Length == 2 ? BleedScope.All : sides.Length == 1 ? BleedScope.OneCorner : rule == BleedRule.Always ? BleedScope.Short : BleedScope.Nothing;
        List<string> says =
        [
            scope switch
            {
                BleedScope.All => $"Bleed all four: {(order is null ? "in the maker's order; the sheet does not give it" : order)}.",
                BleedScope.OneCorner => $"Bleed the {sides[0].Word()} corner.",
                BleedScope.Short => "A short bleed at both rear corners, by the house rule.",
                _ => "It stayed closed: no bleeding, if the pedal goes firm.",
            },
        ];
        if (scope != BleedScope.Nothing) says.Add("Calipers bolted on, bleed screw uppermost. A screw that is not the highest point means that the sides are swapped: it cannot be bled.");
        if (openings.Any(o => o.What is CircuitOpening.HoseOff or CircuitOpening.CaliperRenewed)) says.Add("New washers at every banjo that was undone.");
        return new(scope, scope == BleedScope.OneCorner ? sides[0] : null, says, trail.Conclude(says[0], "practice-bleeding").WouldChange("Anything else that was opened.").Done());
    }

    /// <summary>Stop test: two clear draws in a row without bubbles and with no change of colour; counted anew from the filling after the level went under MIN. Draws before filling = floor(level × band / a draw); the level never goes under MIN.</summary>
    /// <exception cref="InputException">Naming each figure outside its range.</exception>
    public static BleedAnswer Follow(BleedInput input)
    {
        ArgumentNullException.ThrowIfNull(input);
        var checks = new Checks().Range("levelPercent", input.LevelPercent, 0, 150, "%").Range("draws", input.Draws.Count, 0, 200, "").Range("drawVolumeMl", input.DrawVolume?.Milliliters, 0.5, 500, "mL")
            .Range("reservoir.bandMl", input.Reservoir.Band.Milliliters, 10, 2000, "mL");
        foreach (var d in input.Draws) CheckInto(checks, d);
        if (!Enum.IsDefined(input.Method)) checks.Add("method", input.Method.ToString(), "a known method", "That way of bleeding is not known.");
        checks.ThrowIfAny();
        var band = input.Reservoir.Band.Milliliters;
        var trail = new Trail("Bleeding.Follow").Input("Method", Name(input.Method));
        var level = input.LevelPercent;
        var (ranDry, dry, from) = (false, false, 0);
        for (var i = 0; i < input.Draws.Count; i++)
        {
            level -= input.Draws[i].Volume.Milliliters / band * 100;
            ranDry |= dry |= level < -1e-6;
            if (!input.Draws[i].Filled) continue;
            level = 100;
            // What may have drawn air proves nothing: filled again, the proof starts anew.
            if (dry) (dry, from) = (false, i + 1);
        }

        var each = input.DrawVolume ?? (input.Draws.Count > 0 ? Volume.FromMilliliters(input.Draws.Average(d => d.Volume.Milliliters)) : DefaultDraw);
        if (input.DrawVolume is null && input.Draws.Count == 0) trail.Default("A draw", $"{Figure.Of(each.Milliliters)} mL", "practice-bleeding");
        var left = Math.Max((int)Math.Floor(level / 100 * band / each.Milliliters + 1e-9), 0);
        var clear = input.Draws.Skip(from).Reverse().TakeWhile(d => d is { Bubbles: false, ColourChanged: false, Clear: true }).Count();
        var drawn = Volume.FromMilliliters(input.Draws.Sum(d => d.Volume.Milliliters));
        var done = clear >= 2 && !dry;
        trail.Formula("Level now", "level - drawn / band, 100 after filling", $"{Figure.Of(input.LevelPercent, 0)} - {Figure.Of(drawn.Milliliters, 1)} / {Figure.Of(band)}", $"{Figure.Of(level, 0)} %", "geometry")
            .Formula("Draws before filling", "floor(level × band / a draw)", $"{Figure.Of(level / 100)} × {Figure.Of(band)} / {Figure.Of(each.Milliliters, 1)}", Figure.Of(left), "geometry")
            .Evidence("Clear in a row", Figure.Of(clear), "practice-bleeding");
        var says = dry ? "By these figures the level went under MIN: it may have drawn air. Fill it, and bleed all four."
            : done ? $"Done: two clear draws, {DisplacedFluid.Words(drawn)} drawn. Close the screw, then fill to MAX."
            : left == 0 ? "Fill to MAX before the next draw."
            : clear == 1 ? $"One clear. One more like it; {left} {(left == 1 ? "draw" : "draws")} before filling."
            : $"Go on: {left} {(left == 1 ? "draw" : "draws")} before filling.";
        return new(Steps(input.Method), drawn, level, left, clear, ranDry, done, says, trail.Conclude(says).WouldChange("The next draw.").Done());
    }

    /// <summary>Refuses a draw that cannot be.</summary>
    internal static void CheckInto(Checks checks, BleedDraw d) => checks.Range("volumeMl", d.Volume.Milliliters, 0.5, 500, "mL");

    /// <summary>A method by name.</summary>
    internal static string Name(BleedMethod method) => method switch { BleedMethod.TwoPerson => "two people", BleedMethod.Vacuum => "vacuum", BleedMethod.Gravity => "gravity", BleedMethod.Pressure => "pressure", _ => "tube in fluid" };

    private static string Words(CircuitOpening what) => what switch
    {
        CircuitOpening.HoseOff => "hose or banjo off",
        CircuitOpening.CaliperRenewed => "caliper renewed",
        CircuitOpening.BleedScrewOpened => "bleed screw opened",
        CircuitOpening.PedalWithPistonOut => "pedal pressed with a piston out",
        CircuitOpening.ReservoirDry => "reservoir run dry",
        _ => "fluid shown where the circuit should be shut",
    };


    private static string[] Steps(BleedMethod method) => method switch
    {
        BleedMethod.TwoPerson => ["Hose on the screw, its end in a bottle.", "One opens the screw; the other presses the pedal slowly down and says so.", "Close the screw; only then the pedal comes up.", "Look at what came, and at the reservoir."],
        BleedMethod.Vacuum => ["Pump on the screw, its cup in between.", "Draw a vacuum, then open the screw a quarter turn.", "Close the screw before the vacuum is gone. Bubbles past the thread are not bubbles in the brake."],
        BleedMethod.Gravity => ["Hose on the screw, its end lower than the caliper.", "Open the screw and let it run by itself, cap loose.", "Close it; the level is watched the whole time."],
        BleedMethod.Pressure => ["Adapter on the reservoir, no more pressure than the maker allows.", "Open the screw and close it again after each draw.", "Pressure off before the adapter comes off."],
        _ => ["Hose on the screw, its end under fluid in the bottle.", "Open a little; pedal slowly down and up, the end always under fluid.", "Close the screw with the pedal down."],
    };
}

/// <summary>What was seen at a leak check.</summary>
/// <param name="HeldSeconds">How long the pedal was held hard, 0 to 600 s.</param>
/// <param name="Sank">True when it sank.</param>
/// <param name="ScrewDry">Bleed screw dry after washing down and waiting.</param>
/// <param name="BanjoDry">Banjo dry; not known where none was undone.</param>
/// <param name="Pipes">Pipes and hoses looked at before the pedal was pressed hard.</param>
/// <param name="BanjoUndone">True where a banjo was undone: then it is looked at too.</param>
public sealed record LeakInput(int HeldSeconds, bool Sank, Known ScrewDry, Known BanjoDry, Known Pipes, bool BanjoUndone = false);

/// <summary>What the leak check says.</summary>
/// <param name="Passed">True when it holds and is dry.</param>
/// <param name="SecondsLeft">Seconds still to hold.</param>
/// <param name="Says">What to do.</param>
/// <param name="Reasons">Why.</param>
public sealed record LeakAnswer(bool Passed, int SecondsLeft, string Says, Reasons Reasons) : IReasoned;

/// <summary>Judges a leak check.</summary>
[Engine]
public static class LeakCheck
{
    /// <summary>How long the pedal is held hard: 30 s.</summary>
    public const int HoldSeconds = 30;

    /// <summary>The pedal is held hard for 30 s without sinking; screw and banjo are dry after washing down and waiting; pipes and hoses are looked at first.</summary>
    /// <exception cref="InputException">A time that cannot be.</exception>
    public static LeakAnswer Judge(LeakInput input)
    {
        ArgumentNullException.ThrowIfNull(input);
        new Checks().Range("heldSeconds", input.HeldSeconds, 0, 600, "s").ThrowIfAny();
        var left = Math.Max(HoldSeconds - input.HeldSeconds, 0);
        var wet = input.ScrewDry == Known.No || input.BanjoDry == Known.No;
        var says = input.Pipes != Known.Yes ? "Look at pipes and hoses first: a corroded pipe or a cracked hose can burst under a hard pedal."
            : input.Sank ? "It sinks: a leak, air, or the master cylinder. The car does not move until it is found."
            : wet ? "Wet: wash it down, find where it comes from, and hold the pedal again."
            : left > 0 ? $"Hold it hard for {left} s more."
            : input.ScrewDry == Known.NotKnown ? "Held. Now look: wash the bleed screw down, wait, and look again."
            : input.BanjoUndone && input.BanjoDry == Known.NotKnown ? "Held. The banjo was undone: wash it down, wait, and look again."
            : "Held and dry.";
        var passed = left == 0 && !input.Sank && !wet && input.Pipes == Known.Yes && input.ScrewDry == Known.Yes && (!input.BanjoUndone || input.BanjoDry == Known.Yes);
        return new(passed, left, says, new Trail("LeakCheck.Judge").Input("Held", $"{input.HeldSeconds} s of {HoldSeconds}", "practice-leaks").Evidence("Pedal", input.Sank ? "sank" : "held").Conclude(says).WouldChange("A drop of fluid anywhere.").Done());
    }
}
