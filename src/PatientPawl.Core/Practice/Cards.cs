using PatientPawl.Core.Identification;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Reasoning;
using PatientPawl.Core.Retraction;
using PatientPawl.Core.Torque;
using PatientPawl.Core.Vehicles;
using UnitsNet;

namespace PatientPawl.Core.Practice;

/// <summary>A choice on a card, judged before it is dealt.</summary>
/// <param name="Says">The choice.</param>
/// <param name="IsRight">True where the engines say so.</param>
/// <param name="Why">What it would come to, or why it is right.</param>
public sealed record CardChoice(string Says, bool IsRight, string Why);

/// <summary>One decision in under a minute.</summary>
/// <param name="Id">Its id, kept with the box that it lies in.</param>
/// <param name="Trains">What it is about.</param>
/// <param name="Asks">The question.</param>
/// <param name="Facts">What is known.</param>
/// <param name="Choices">The choices; one of them is right.</param>
public sealed record PracticeCard(string Id, Competence Trains, string Asks, IReadOnlyList<string> Facts,
    IReadOnlyList<CardChoice> Choices);

/// <summary>Where a card of somebody lies.</summary>
/// <param name="CardId">The card.</param>
/// <param name="Box">The box, 1 to 5.</param>
/// <param name="Due">The day it comes back.</param>
/// <param name="RightTimes">How often it was right.</param>
/// <param name="WrongTimes">How often it was wrong.</param>
public sealed record CardBox(string CardId, int Box, DateOnly Due, int RightTimes, int WrongTimes);

/// <summary>
/// When a card comes back: the boxes of Leitner (1972, from memory). Right moves it a box on, wrong puts it back into the first; each box
/// waits twice as long as the one before.
/// </summary>
public static class LeitnerBoxes
{
    /// <summary>How many boxes there are.</summary>
    public const int Last = 5;

    /// <summary>Days that a box waits: 1, 2, 4, 8, 16.</summary>
    /// <param name="box">The box, 1 to 5.</param>
    /// <exception cref="InputException">No such box.</exception>
    public static int Days(int box)
    {
        new Checks().Range("box", box, 1, Last, "").ThrowIfAny();
        return 1 << (box - 1);
    }

    /// <summary>Where a card lies after an answer.</summary>
    /// <param name="cardId">The card.</param>
    /// <param name="before">Where it lay; null for one that was never answered.</param>
    /// <param name="right">True where it was right.</param>
    /// <param name="today">The day.</param>
    public static CardBox After(string cardId, CardBox? before, bool right, DateOnly today)
    {
        // A new card that is known at once skips the first wait.
        var box = right ? Math.Min((before?.Box ?? 1) + 1, Last) : 1;
        return new(cardId, box, today.AddDays(Days(box)), (before?.RightTimes ?? 0) + (right ? 1 : 0),
            (before?.WrongTimes ?? 0) + (right ? 0 : 1));
    }

    /// <summary>What is dealt: what is due, the lowest box first, then new ones.</summary>
    /// <param name="cards">Every card.</param>
    /// <param name="boxes">Where this person's lie.</param>
    /// <param name="today">The day.</param>
    /// <param name="most">How many at most, 1 to 50.</param>
    public static IReadOnlyList<PracticeCard> Deal(IReadOnlyList<PracticeCard> cards, IReadOnlyList<CardBox> boxes, DateOnly today,
        int most)
    {
        ArgumentNullException.ThrowIfNull(cards);
        ArgumentNullException.ThrowIfNull(boxes);
        new Checks().Range("most", most, 1, 50, "").ThrowIfAny();
        var lies = boxes.ToDictionary(b => b.CardId);
        var due = cards.Where(c => lies.TryGetValue(c.Id, out var box) && box.Due <= today).OrderBy(c => lies[c.Id].Box)
            .ThenBy(c => lies[c.Id].Due);
        return [.. due.Concat(cards.Where(c => !lies.ContainsKey(c.Id))).Take(most)];
    }
}

/// <summary>Every card, with every choice judged by the engines that judge real work.</summary>
public static class CardSet
{
    private static readonly Lazy<IReadOnlyList<PracticeCard>> Made = new(() =>
        [.. Interleaved([.. WhichWay()], [.. DoesItPass()], [.. SetTheWrench()], [.. WhatNext()], [.. WhatComesOfIt()])]);

    /// <summary>All of them, the kinds in turn.</summary>
    public static IReadOnlyList<PracticeCard> All => Made.Value;

    private static IEnumerable<PracticeCard> Interleaved(params IReadOnlyList<PracticeCard>[] kinds)
    {
        for (var i = 0; i < kinds.Max(k => k.Count); i++)
            foreach (var kind in kinds.Where(k => i < k.Count)) yield return kind[i];
    }

    private static IEnumerable<PracticeCard> WhichWay()
    {
        foreach (var (sheet, side) in InventedCars.Sheets.Where(s => s.Architecture is not null)
            .SelectMany(s => Sides.Both.Select(side => (s, side))))
        {
            // The two sides of one sheet ask the same unless they turn differently.
            if (side == Side.Right && sheet.Piston.DirectionLeft == sheet.Piston.DirectionRight) continue;
            var ruling = RetractionRuling.Decide(sheet.Architecture!.Value, side, sheet.Piston);
            var right = Debrief.OptionOf(ruling);
            var sheetSays = ruling.DirectionIsDefault ? "The sheet names no direction." : ruling.Turned
                ? $"The sheet: {(ruling.Direction == TurnDirection.Anticlockwise ? "anticlockwise" : "clockwise")}, facing the piston."
                : "";
            yield return new($"way-{sheet.Code.ToLowerInvariant()}-{side.Word()}", Competence.Retract,
                $"How does the {side.Word()} piston go home?",
                [.. new[] { $"{sheet.Architecture!.Value.Words()}.", sheetSays }.Where(f => f.Length > 0)],
                [.. PracticeQuestions.Ways.Select(w => new CardChoice(w.Says, w.Id == right, w.Id == right ? ruling.Because
                    : $"{ruling.Headline}. {ruling.Because}"))]);
        }
    }

    private static IEnumerable<PracticeCard> DoesItPass()
    {
        (string Gauge, double MarginMm)[] readings = [("micrometer", 0.30), ("vernier", 0.05), ("micrometer", 0.05), ("vernier", -0.02),
            ("caliper", -0.20), ("fine-micrometer", 0.004), ("fine-micrometer", 0.02), ("steel-rule", 0.5)];
        var n = 0;
        foreach (var (gauge, margin) in readings)
        {
            var sheet = InventedCars.Sheets[n % 4];
            var limit = sheet.Rotor.MinimumThickness!.Value;
            var instrument = InstrumentCatalogue.Get(InstrumentCatalogue.Defaults, gauge);
            var read = limit + Length.FromMillimeters(margin);
            var judged = LimitJudgement.Judge(new(Judged.RotorThickness, Side.Left), read, limit, LimitKind.Minimum, instrument, false);
            var why = $"{Figure.Of(read.Millimeters)} mm, least {Figure.Of(limit.Millimeters)} mm, "
                + $"and {Figure.Of(judged.GuardBand.Millimeters, 3)} mm of doubt with a {instrument.Name.ToLowerInvariant()}: {judged.Verdict.Words()}.";
            CardChoice Choice(string says, Verdict verdict) => new(says, judged.Verdict == verdict, why);
            yield return new($"passes-{++n}", Competence.Measure, "Does the rotor pass?",
                [$"Thinnest of eight readings: {Figure.Of(read.Millimeters)} mm, {instrument.Name.ToLowerInvariant()}.",
                    $"Minimum: {Figure.Of(limit.Millimeters)} mm."],
                [Choice("It passes", Verdict.Inside), Choice("Too close to call", Verdict.TooCloseToCall),
                    Choice("It is worn out", Verdict.Outside)]);
        }
    }

    private static IEnumerable<PracticeCard> SetTheWrench()
    {
        var n = 0;
        foreach (var sheet in InventedCars.Sheets.Take(4))
        {
            foreach (var role in new[] { FastenerRole.SlidePin, FastenerRole.Bracket })
            {
                var line = sheet.Line(role)!;
                var crowfoot = n % 2 == 0 ? new NeededCrowfoot(role, Length.FromMillimeters(45 + 10 * n), Length.FromMillimeters(380))
                    : null;
                var right = PracticeQuestions.Setting(line, crowfoot).OnTheScale.NewtonMeters;
                var other = sheet.Line(role == FastenerRole.SlidePin ? FastenerRole.Bracket : FastenerRole.SlidePin)!.Wanted.NewtonMeters;
                List<(double Figure, string Why)> wrong = [(other, TrapCatalogue.Of(TrapId.OthersFigure).Lesson),
                    (line.Wanted.PoundForceFeet, TrapCatalogue.Of(TrapId.UnitSlip).Lesson)];
                if (crowfoot is not null) wrong.Add((line.Wanted.NewtonMeters, TrapCatalogue.Of(TrapId.CrowfootForgotten).Lesson));
                yield return new($"wrench-{++n}", Competence.Torque, $"What do you set the wrench to for the {Fasteners.Words(role)}s?",
                    [
                        $"The sheet: {Figure.Of(line.Wanted.NewtonMeters, 1)} N m.", "The scale shows N m.",
                        crowfoot is null ? "A socket, straight on."
                            : $"A crowfoot, {Figure.Of(crowfoot.Extension.Millimeters, 0)} mm, straight on a wrench of 380 mm.",
                    ],
                    [.. wrong.Select(w => new CardChoice($"{Figure.Of(w.Figure, 1)} N m", false, w.Why))
                        .Append(new($"{Figure.Of(right, 1)} N m", true, crowfoot is null ? "As the sheet has it."
                            : $"{Figure.Of(line.Wanted.NewtonMeters, 1)} × 380 / {Figure.Of(380 + crowfoot.Extension.Millimeters, 0)}."))
                        .OrderBy(c => c.Says, StringComparer.Ordinal)]);
            }
        }
    }

    private static IEnumerable<PracticeCard> WhatNext()
    {
        foreach (var architecture in new[] { Architecture.CableScrew, Architecture.MotorPush, Architecture.HatShoes,
            Architecture.LeverPush, Architecture.RearHex })
        {
            var setup = PlanSetup.For(architecture, architecture == Architecture.HatShoes ? JobScope.PadsRotorsAndShoes : JobScope.Pads,
                architecture == Architecture.MotorPush ? ServiceRoute.ScanTool : null);
            var (state, n) = (setup.Start(), 0);
            var plan = Planner.Make(setup, state).Steps;
            for (var i = 0; i < plan.Count; i++)
            {
                // At every ninth step: what the plan does, against three that are refused just then.
                if (i % 9 == 8)
                {
                    var later = plan.Skip(i + 1).Select(k => (Key: k, Why: Planner.Why(setup, state, k)))
                        .Where(k => !k.Why.Allowed && k.Why.Lacking.Count > 0)
                        .DistinctBy(k => k.Key.StepId).Where((_, at) => at % 3 == 0).Take(3).ToArray();
                    if (later.Length == 3 && StepCatalogue.Find(plan[i].StepId) is { } type)
                    {
                        yield return new($"next-{architecture.ToString().ToLowerInvariant()}-{++n}", Competence.Sequence,
                            "Which of these may be done now?",
                            [$"{architecture.Words()}, new pads.", $"Done last: {StepCatalogue.Words(plan[i - 1])}."],
                            [.. later.Select(k => new CardChoice(StepCatalogue.Words(k.Key), false, string.Join(" ", k.Why.Lacking.Take(2))))
                                .Append(new(StepCatalogue.Words(plan[i]), true, type.Because)).OrderBy(c => c.Says, StringComparer.Ordinal)]);
                    }
                }

                state = Planner.Apply(setup, state, plan[i], null);
            }
        }
    }

    private static IEnumerable<PracticeCard> WhatComesOfIt()
    {
        var all = TrapCatalogue.All;
        for (var i = 0; i < all.Count; i++)
        {
            var trap = all[i];
            string[] others = [.. new[] { 5, 11, 17 }.Select(step => all[(i + step) % all.Count].Consequence)];
            yield return new($"trap-{(int)trap.Id + 1}", trap.Trains, "What comes of it?", [$"{trap.State}.", $"{trap.WrongAction}."],
                [.. others.Select(o => new CardChoice(o, false, $"{trap.Consequence}. {trap.Lesson}"))
                    .Append(new(trap.Consequence, true, trap.Lesson)).OrderBy(c => c.Says, StringComparer.Ordinal)]);
        }
    }
}
