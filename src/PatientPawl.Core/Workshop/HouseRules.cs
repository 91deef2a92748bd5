namespace PatientPawl.Core.Workshop;

/// <summary>Parking brake while lifting.</summary>
public enum HoldingRule
{
    /// <summary>Held on until the rotor screws of both sides are cracked, then released.</summary>
    HoldUntilCracked,
    /// <summary>Released from the start; a bar across the studs holds the hub.</summary>
    ReleasedFromStart,
}

/// <summary>How far the piston is retracted.</summary>
public enum RetractDepthRule
{
    /// <summary>All the way home.</summary>
    AllTheWayHome,
    /// <summary>Only as far as the new parts need, plus the running margin.</summary>
    AsFarAsNeeded,
}

/// <summary>In which order the two sides are built up.</summary>
public enum SidesRule
{
    /// <summary>One side complete, then the other.</summary>
    OneThenOther,
    /// <summary>Both sides in step, tool by tool.</summary>
    InStep,
}

/// <summary>The workshop's chosen schools of practice. Immutable; copied into a job when the job starts.</summary>
/// <param name="Holding">Parking brake while lifting.</param>
/// <param name="RetractDepth">How far to retract.</param>
/// <param name="Sides">Order of the two sides.</param>
public sealed record HouseRules(HoldingRule Holding, RetractDepthRule RetractDepth, SidesRule Sides)
{
    /// <summary>School A throughout.</summary>
    public static HouseRules Default { get; } = new(HoldingRule.HoldUntilCracked, RetractDepthRule.AllTheWayHome, SidesRule.OneThenOther);
}

/// <summary>One school of a house rule.</summary>
/// <param name="Key">The value's key in the open formats.</param>
/// <param name="Says">The school in one sentence.</param>
/// <param name="Changes">What choosing it changes in a plan or a ruling.</param>
public sealed record School(string Key, string Says, string Changes);

/// <summary>A house rule with its schools, for people to read.</summary>
/// <param name="Key">The property's key in the open formats.</param>
/// <param name="Title">Its name.</param>
/// <param name="Schools">The schools; the first is the default.</param>
/// <param name="WhyDefault">One line saying why the first is the default.</param>
/// <param name="ChangesPlan">True when it changes the order of the work, false when it changes a ruling only.</param>
public sealed record HouseRuleCard(string Key, string Title, IReadOnlyList<School> Schools, string WhyDefault, bool ChangesPlan);

/// <summary>The house rules as cards.</summary>
public static class HouseRuleCatalogue
{
    /// <summary>All the rules that work in this version.</summary>
    public static IReadOnlyList<HouseRuleCard> All { get; } =
    [
        new("holding", "Parking brake while lifting",
            [
                new("hold-until-cracked", "Hold it on until the rotor screws of both sides are cracked, then release.", "The plan cracks the screws against the brake and holds both sides there before the one release."),
                new("released-from-start", "Released from the start; a bar across the studs holds the hub.", "The plan releases before lifting and cracks the screws against a bar."),
            ],
            "The hub is held for free; but never on an axle being jacked with no chocks at the other. Where the rotor stays on or has no screws, it is released from the start.", true),
        new("retractDepth", "How far to retract",
            [
                new("all-the-way-home", "All the way home.", "Travel, turns and fluid are counted to the home position."),
                new("as-far-as-needed", "Only as far as the new parts need, plus a running margin.", "Travel, turns and fluid are counted to what the new parts need."),
            ],
            "One fit attempt; the second is kinder to an old seal that has lived further out.", false),
        new("sides", "Sides",
            [
                new("one-then-other", "One side complete, then the other.", "After both sides are judged, the plan builds up one corner and then the other."),
                new("in-step", "Both sides in step, tool by tool.", "The plan does each step on both corners before the next."),
            ],
            "An assembled brake stays as the reference; in step invites mirror-image mistakes.", true),
    ];
}
