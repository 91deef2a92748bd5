namespace PatientPawl.Core.Jobs;

/// <summary>An answer to a question before lifting.</summary>
public enum LookOverAnswer
{
    /// <summary>Yes.</summary>
    Yes,
    /// <summary>No.</summary>
    No,
    /// <summary>Nobody knows yet.</summary>
    NotKnown,
}

/// <summary>A question asked before the car is lifted.</summary>
/// <param name="Id">Its id in stored events.</param>
/// <param name="Question">The question.</param>
/// <param name="Settles">The answers that let the job go on.</param>
/// <param name="Otherwise">What to do when it is answered otherwise.</param>
public sealed record LookOverQuestion(string Id, string Question, IReadOnlyList<LookOverAnswer> Settles, string Otherwise)
{
    // What a yes says at later steps.
    internal IReadOnlyList<Remark> IfYes { get; init; } = [];
}

/// <summary>A question with its answer.</summary>
/// <param name="Id">The question's id.</param>
/// <param name="Answer">The answer.</param>
public sealed record LookOverItem(string Id, LookOverAnswer Answer);

/// <summary>The questions before lifting.</summary>
public static class LookOverQuestions
{
    /// <summary>Whether two wheels stand on each rear hub.</summary>
    public const string TwinWheels = "twin-wheels";

    /// <summary>The question whose answer says whether the pedal can prove anything.</summary>
    public const string SimulatedPedal = "simulated-pedal";

    /// <summary>The question whose answer says whether the brakes can press themselves.</summary>
    public const string SelfPressurising = "self-pressurising";

    /// <summary>The question whose answer says whether the pedal may be pressed hard.</summary>
    public const string Pipes = "pipes";

    private static readonly LookOverAnswer[] Either = [LookOverAnswer.Yes, LookOverAnswer.No];
    private static readonly LookOverAnswer[] Any = [LookOverAnswer.Yes, LookOverAnswer.No, LookOverAnswer.NotKnown];

    /// <summary>All of them, in the order they are asked.</summary>
    public static IReadOnlyList<LookOverQuestion> All { get; } =
    [
        new("roll", "Short roll: any pull, noise or shake?", Any, ""),
        new("lamps", "Any warning lamp on?", Either, "Ignition on and look: a lamp that was on before is told apart from one the job lights."),
        new("nut-key", "Locking-nut key found, or none needed?", [LookOverAnswer.Yes], "Find the key first: without it the wheel stays on."),
        new("load-out", "Load and passengers out, air suspension in jacking mode?", [LookOverAnswer.Yes], "Load and people out, and jacking mode on, before it is lifted."),
        new("tail-lift", "Tail-lift stowed and isolated, or none?", [LookOverAnswer.Yes], "Stow it and switch it off at its isolator: it moves by itself, and its weight hangs behind the stands."),
        new(TwinWheels, "Twin wheels at the rear?", Either, "Look: one wheel or two on each hub.")
        {
            IfYes =
            [
                new(["wheel-off"], "Twin wheels: outer first, then inner; note how the valves stand."),
                new(["wheel-on"], "Twin wheels: inner first, faces clean, valves opposite one another."),
                new(["wheel-torqued"], $"Twin wheels settle on one another: torqued again after {Workshop.HouseWords.NutsAgain}, whatever the house rule."),
            ],
        },
        new("wheel-bolts", "Bolts instead of nuts at the wheels?", Either, "Look: studs stand out, or bolts go in.")
        {
            IfYes = [new(["wheel-off"], "Wheel bolts: a pilot pin in one hole before the last of them."), new(["wheel-on"], "Wheel bolts: pilot pin first, and its hole gets the last bolt.")],
        },
        new("jacking-points", "Jacking points sound?", [LookOverAnswer.Yes], "A rotten jacking point lets go: another sound point, or the job stops."),
        new(Pipes, "Pipes and hoses sound?", Either, "Look at pipes and hoses before the pedal is pressed hard."),
        new(SimulatedPedal, "Is the pedal feel simulated, brake by wire?", Either, "This must be settled: a simulated pedal proves nothing. The maker's data says which it is."),
        new(SelfPressurising, "Can the brakes pressurise themselves, hybrid or electric?", Any, ""),
    ];
}
