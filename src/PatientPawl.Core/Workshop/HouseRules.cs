using UnitsNet;

namespace PatientPawl.Core.Workshop;

/// <summary>Parking brake while lifting.</summary>
public enum HoldingRule
{
    /// <summary>Hold it on until the rotor screws of both sides are cracked, then release.</summary>
    HoldUntilCracked,
    /// <summary>Released from the start; a bar across the studs holds the hub.</summary>
    ReleasedFromStart,
}

/// <summary>How far to retract.</summary>
public enum RetractDepthRule
{
    /// <summary>All the way home.</summary>
    AllTheWayHome,
    /// <summary>Only as far as the new parts need, plus a running margin.</summary>
    AsFarAsNeeded,
}

/// <summary>Sides.</summary>
public enum SidesRule
{
    /// <summary>One side complete, the other kept assembled as the pattern, its wheel off and looked at first.</summary>
    OtherKept,
    /// <summary>Both sides judged, then built up one by one.</summary>
    OneThenOther,
    /// <summary>Both sides in step, tool by tool.</summary>
    InStep,
}

/// <summary>Reservoir cap.</summary>
public enum CapRule
{
    /// <summary>The cap stays on; the level is read through the wall.</summary>
    StaysOn,
    /// <summary>Cap off, a rag round the neck, while pistons go home.</summary>
    OffWithRag,
}

/// <summary>Making room for fluid.</summary>
public enum FluidRoomRule
{
    /// <summary>Draw off the predicted excess with a clean syringe.</summary>
    DrawOff,
    /// <summary>Open the bleed screw while pushing, then bleed.</summary>
    OpenBleeder,
}

/// <summary>Hose clamp.</summary>
public enum HoseRule
{
    /// <summary>Never pinch a hose: plug it, or let it drip into a tray.</summary>
    NeverPinch,
    /// <summary>Pinch with a purpose-made smooth-jawed clamp.</summary>
    Clamp,
}

/// <summary>Piston alignment.</summary>
public enum AlignmentRule
{
    /// <summary>Onward only, in the retracting direction, planned so that it ends aligned.</summary>
    OnwardOnly,
    /// <summary>A small back-off is allowed.</summary>
    BackOffAllowed,
}

/// <summary>Boot lip.</summary>
public enum BootRule
{
    /// <summary>A trace of silicone or rubber-safe grease, so that the boot does not wind up.</summary>
    Greased,
    /// <summary>Dry.</summary>
    Dry,
}

/// <summary>Pad ears and abutments.</summary>
public enum PadEarsRule
{
    /// <summary>Thin rubber-safe ceramic or silicone brake grease.</summary>
    Greased,
    /// <summary>Dry on coated hardware, as the pad maker says.</summary>
    Dry,
}

/// <summary>Under the abutment clips.</summary>
public enum ClipsRule
{
    /// <summary>A thin protective film against rust.</summary>
    Film,
    /// <summary>Bare metal.</summary>
    BareMetal,
}

/// <summary>Hub pilot.</summary>
public enum PilotRule
{
    /// <summary>A smear of anti-seize on the pilot lip only, none on the mounting face or studs.</summary>
    Smear,
    /// <summary>Nothing.</summary>
    Nothing,
}

/// <summary>Wheel studs and nuts.</summary>
public enum StudsRule
{
    /// <summary>Dry, unless the maker says otherwise.</summary>
    Dry,
    /// <summary>Lightly lubricated, with the torque reduced as the maker says.</summary>
    Lubricated,
}

/// <summary>Thread locker.</summary>
public enum LockerRule
{
    /// <summary>Medium strength on bracket bolts, where reuse is allowed and the maker calls for it.</summary>
    WhereCalledFor,
    /// <summary>Always on bracket bolts.</summary>
    Always,
}

/// <summary>Star-wheel back-off.</summary>
public enum StarWheelRule
{
    /// <summary>By clearance: clicks computed for the specified clearance.</summary>
    ByClearance,
    /// <summary>By count: lock, back off the counted clicks, then no audible rub.</summary>
    ByCount,
}

/// <summary>Pedal pump-up.</summary>
public enum PumpRule
{
    /// <summary>Slow half strokes until firm.</summary>
    HalfStrokes,
    /// <summary>Full strokes.</summary>
    FullStrokes,
}

/// <summary>Bleeding after pads only.</summary>
public enum BleedRule
{
    /// <summary>Not needed if the hydraulics stayed closed and the pedal is firm.</summary>
    WhenOpened,
    /// <summary>Always a short bleed.</summary>
    Always,
}

/// <summary>Bed-in.</summary>
public enum BedInRule
{
    /// <summary>A series of firm stops with cooling between.</summary>
    Series,
    /// <summary>Gentle for the first 150 to 300 km, no heavy stops.</summary>
    Gentle,
}

/// <summary>Calipers in pairs.</summary>
public enum PairsRule
{
    /// <summary>Replace the stuck one, advise the other.</summary>
    StuckOnly,
    /// <summary>Both sides.</summary>
    BothSides,
}

/// <summary>Sign-off.</summary>
public enum SignOffRule
{
    /// <summary>The technician who did it.</summary>
    Technician,
    /// <summary>The lead also signs bracket, caliper and wheel.</summary>
    LeadAlso,
}

/// <summary>Retorque wheels.</summary>
public enum RetorqueRule
{
    /// <summary>After 50 to 80 km.</summary>
    Recheck,
    /// <summary>Not needed.</summary>
    NotNeeded,
}

/// <summary>Shown before alone.</summary>
public enum ShownRule
{
    /// <summary>Nobody is asked to have shown anything.</summary>
    NotAsked,
    /// <summary>Who has not shown a step's competence in practice does it beside somebody.</summary>
    Asked,
}

/// <summary>The workshop's chosen schools of practice. Immutable; copied into a job when the job starts. A rule that an older job does not carry counts as its first school.</summary>
/// <param name="Holding">Parking brake while lifting.</param>
/// <param name="RetractDepth">How far to retract.</param>
/// <param name="Sides">Sides.</param>
/// <param name="Cap">Reservoir cap.</param>
/// <param name="FluidRoom">Making room for fluid.</param>
/// <param name="Hose">Hose clamp.</param>
/// <param name="Alignment">Piston alignment.</param>
/// <param name="Boot">Boot lip.</param>
/// <param name="PadEars">Pad ears and abutments.</param>
/// <param name="UnderClips">Under the abutment clips.</param>
/// <param name="HubPilot">Hub pilot.</param>
/// <param name="Studs">Wheel studs and nuts.</param>
/// <param name="ThreadLocker">Thread locker.</param>
/// <param name="StarWheel">Star-wheel back-off.</param>
/// <param name="PumpUp">Pedal pump-up.</param>
/// <param name="Bleeding">Bleeding after pads only.</param>
/// <param name="BedIn">Bed-in.</param>
/// <param name="Pairs">Calipers in pairs.</param>
/// <param name="SignOff">Sign-off.</param>
/// <param name="Retorque">Retorque wheels.</param>
/// <param name="BackOffLimit">Most back-off where piston alignment allows one, 1 to 360 degrees; null uses the flagged default of 90.</param>
/// <param name="ShownBeforeAlone">Shown before alone.</param>
public sealed record HouseRules(
    HoldingRule Holding,
    RetractDepthRule RetractDepth,
    SidesRule Sides,
    CapRule Cap = CapRule.StaysOn,
    FluidRoomRule FluidRoom = FluidRoomRule.DrawOff,
    HoseRule Hose = HoseRule.NeverPinch,
    AlignmentRule Alignment = AlignmentRule.OnwardOnly,
    BootRule Boot = BootRule.Greased,
    PadEarsRule PadEars = PadEarsRule.Greased,
    ClipsRule UnderClips = ClipsRule.Film,
    PilotRule HubPilot = PilotRule.Smear,
    StudsRule Studs = StudsRule.Dry,
    LockerRule ThreadLocker = LockerRule.WhereCalledFor,
    StarWheelRule StarWheel = StarWheelRule.ByClearance,
    PumpRule PumpUp = PumpRule.HalfStrokes,
    BleedRule Bleeding = BleedRule.WhenOpened,
    BedInRule BedIn = BedInRule.Series,
    PairsRule Pairs = PairsRule.StuckOnly,
    SignOffRule SignOff = SignOffRule.Technician,
    RetorqueRule Retorque = RetorqueRule.Recheck,
    Angle? BackOffLimit = null,
    ShownRule ShownBeforeAlone = ShownRule.NotAsked)
{
    /// <summary>Refuses a limit that cannot be.</summary>
    /// <exception cref="InputException">Naming field, value and range.</exception>
    public HouseRules Checked()
    {
        new Checks().Range("backOffLimitDeg", BackOffLimit?.Degrees, 1, 360, "degrees").ThrowIfAny();
        return this;
    }

    /// <summary>School A throughout.</summary>
    public static HouseRules Default { get; } = new(HoldingRule.HoldUntilCracked, RetractDepthRule.AllTheWayHome, SidesRule.OtherKept);
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
/// <param name="ChangesPlan">True when it changes the order of the work, false when it changes a ruling, a tool or a consumable only.</param>
public sealed record HouseRuleCard(string Key, string Title, IReadOnlyList<School> Schools, string WhyDefault, bool ChangesPlan)
{
    internal Func<HouseRules, int> Read { get; init; } = _ => 0;
    internal Func<HouseRules, int, HouseRules> Write { get; init; } = (r, _) => r;

    /// <summary>The school in force.</summary>
    public School InForce(HouseRules rules) => Schools[Read(rules)];

    /// <summary>The rules with this school in force, by its place in <see cref="Schools"/>.</summary>
    public HouseRules Choose(HouseRules rules, int school) => Write(rules, Math.Clamp(school, 0, Schools.Count - 1));
}

/// <summary>The house rules as cards. Common practice, no source.</summary>
public static class HouseRuleCatalogue
{
    /// <summary>All the rules.</summary>
    public static IReadOnlyList<HouseRuleCard> All { get; } =
    [
        new("holding", "Parking brake while lifting",
            [
                new("hold-until-cracked", "Hold it on until the rotor screws of both sides are cracked, then release.", "The plan cracks the screws against the brake and holds both sides there before the one release."),
                new("released-from-start", "Released from the start; a bar across the studs holds the hub.", "The plan releases before lifting and cracks the screws against a bar."),
            ],
            "The hub is held for free; but never on an axle being jacked with no chocks at the other. Where the rotor stays on or has no screws, it is released from the start.", true) { Read = r => (int)r.Holding, Write = (r, i) => r with { Holding = (HoldingRule)i } },
        new("retractDepth", "How far to retract",
            [
                new("all-the-way-home", "All the way home.", "Travel, turns and fluid are counted to the home position."),
                new("as-far-as-needed", "Only as far as the new parts need, plus a running margin.", "Travel, turns and fluid are counted to what the new parts need."),
            ],
            "One fit attempt; the second is kinder to an old seal that has lived further out.", false) { Read = r => (int)r.RetractDepth, Write = (r, i) => r with { RetractDepth = (RetractDepthRule)i } },
        new("sides", "Sides",
            [
                new("other-kept", "One side complete, the other kept assembled.", "The plan has the other side looked at, finishes one corner from the first bolt to the last, and only then opens the other."),
                new("one-then-other", "Both sides judged, then built one by one.", "After both sides are judged, the plan builds up one corner and then the other."),
                new("in-step", "Both sides in step, tool by tool.", "The plan does each step on both corners before the next."),
            ],
            "An assembled brake stays as the pattern, and a look at it makes a surprise cheap; in step invites mirror-image mistakes.", true) { Read = r => (int)r.Sides, Write = (r, i) => r with { Sides = (SidesRule)i } },
        new("cap", "Reservoir cap",
            [
                new("stays-on", "The cap stays on; the level is read through the wall.", "No step for the cap."),
                new("off-with-rag", "Cap off, a rag round the neck, while pistons go home.", "The plan takes the cap off before the first piston goes home and puts it back before the hand-over."),
            ],
            "Fluid takes up water from the air; a vented cap lets displaced fluid in.", true) { Read = r => (int)r.Cap, Write = (r, i) => r with { Cap = (CapRule)i } },
        new("fluidRoom", "Making room for fluid",
            [
                new("draw-off", "Draw off the predicted excess with a clean syringe.", "A piston with no room for its fluid waits for the syringe."),
                new("open-bleeder", "Open the bleed screw while pushing, then bleed.", "Retraction opens the hydraulics: the plan bleeds before the pedal counts."),
            ],
            "An opened screw can draw air, and adds a bleed.", true) { Read = r => (int)r.FluidRoom, Write = (r, i) => r with { FluidRoom = (FluidRoomRule)i } },
        new("hose", "Hose clamp",
            [
                new("never-pinch", "Never pinch a hose: plug it, or let it drip into a tray.", "The steps that open a hose ask for a plug and a tray."),
                new("clamp", "Pinch with a purpose-made smooth-jawed clamp.", "The steps that open a hose ask for the clamp."),
            ],
            "Damage to a hose's inner liner cannot be seen.", false) { Read = r => (int)r.Hose, Write = (r, i) => r with { Hose = (HoseRule)i } },
        new("alignment", "Piston alignment",
            [
                new("onward-only", "Onward only, in the retracting direction, planned so that it ends aligned.", "The ruling's alignment is onward."),
                new("back-off-allowed", "A small back-off is allowed.", "The ruling may turn back, within its limit, to align."),
            ],
            "Some mechanisms dislike reversal; a back-off is bounded by lead and angle.", false) { Read = r => (int)r.Alignment, Write = (r, i) => r with { Alignment = (AlignmentRule)i } },
        new("boot", "Boot lip",
            [
                new("greased", "A trace of silicone or rubber-safe grease, so that the boot does not wind up.", "Grease is laid out for the retraction."),
                new("dry", "Dry.", "No grease is laid out for the boot."),
            ],
            "A wound boot tears.", false) { Read = r => (int)r.Boot, Write = (r, i) => r with { Boot = (BootRule)i } },
        new("padEars", "Pad ears and abutments",
            [
                new("greased", "Thin rubber-safe ceramic or silicone brake grease.", "Grease is laid out for the pad ears."),
                new("dry", "Dry on coated hardware, as the pad maker says.", "No grease is laid out for the pad ears."),
            ],
            "Binding pads are the commonest cause of uneven wear.", false) { Read = r => (int)r.PadEars, Write = (r, i) => r with { PadEars = (PadEarsRule)i } },
        new("underClips", "Under the abutment clips",
            [
                new("film", "A thin protective film against rust.", "The film is laid out for the abutments."),
                new("bare-metal", "Bare metal.", "Nothing is laid out for the abutments."),
            ],
            "Rust under the clip narrows the slot.", false) { Read = r => (int)r.UnderClips, Write = (r, i) => r with { UnderClips = (ClipsRule)i } },
        new("hubPilot", "Hub pilot",
            [
                new("smear", "A smear of anti-seize on the pilot lip only, none on the mounting face or studs.", "Anti-seize is laid out for the pilot."),
                new("nothing", "Nothing.", "Nothing is laid out for the pilot."),
            ],
            "Eases the next job without spoiling flatness.", false) { Read = r => (int)r.HubPilot, Write = (r, i) => r with { HubPilot = (PilotRule)i } },
        new("studs", "Wheel studs and nuts",
            [
                new("dry", "Dry, unless the maker says otherwise.", "Wheel torque is the sheet's figure."),
                new("lubricated", "Lightly lubricated, with the torque reduced as the maker says.", "The wheel step warns that the sheet's dry figure is too much."),
            ],
            "Lubricant raises the clamp load by about a third at the same torque.", false) { Read = r => (int)r.Studs, Write = (r, i) => r with { Studs = (StudsRule)i } },
        new("threadLocker", "Thread locker",
            [
                new("where-called-for", "Medium strength on bracket bolts, where reuse is allowed and the maker calls for it.", "Thread locker is laid out only where the sheet's note calls for it."),
                new("always", "Always on bracket bolts.", "Thread locker is laid out for every bracket bolt that is used again."),
            ],
            "Single-use bolts are replaced, not locked again.", false) { Read = r => (int)r.ThreadLocker, Write = (r, i) => r with { ThreadLocker = (LockerRule)i } },
        new("starWheel", "Star-wheel back-off",
            [
                new("by-clearance", "By clearance: clicks computed for the specified clearance.", "The shoe bench puts the computed clicks first."),
                new("by-count", "By count: lock, back off the counted clicks, then no audible rub.", "The shoe bench puts the count first."),
            ],
            "A count means different clearances on different adjusters.", false) { Read = r => (int)r.StarWheel, Write = (r, i) => r with { StarWheel = (StarWheelRule)i } },
        new("pumpUp", "Pedal pump-up",
            [
                new("half-strokes", "Slow half strokes until firm.", "The pedal step asks for half strokes."),
                new("full-strokes", "Full strokes.", "The pedal step asks for full strokes."),
            ],
            "A worn master cylinder's seals can be hurt by its unswept bore.", false) { Read = r => (int)r.PumpUp, Write = (r, i) => r with { PumpUp = (PumpRule)i } },
        new("bleeding", "Bleeding after pads only",
            [
                new("when-opened", "Not needed if the hydraulics stayed closed and the pedal is firm.", "The plan bleeds only an opened circuit."),
                new("always", "Always a short bleed.", "The plan bleeds before the pedal is proved."),
            ],
            "Fluid age and moisture decide instead.", true) { Read = r => (int)r.Bleeding, Write = (r, i) => r with { Bleeding = (BleedRule)i } },
        new("bedIn", "Bed-in",
            [
                new("series", "A series of firm stops with cooling between.", "The plan has a bed-in series after the test drive."),
                new("gentle", HouseWords.Gentle + ".", "The hand-over tells the driver to be gentle; no series is planned."),
            ],
            "The pad maker's sheet wins over both.", true) { Read = r => (int)r.BedIn, Write = (r, i) => r with { BedIn = (BedInRule)i } },
        new("pairs", "Calipers in pairs",
            [
                new("stuck-only", "Replace the stuck one, advise the other.", "A stuck caliper is renewed on its own side."),
                new("both-sides", "Both sides.", "A stuck caliper renews both."),
            ],
            "An axle should act alike.", true) { Read = r => (int)r.Pairs, Write = (r, i) => r with { Pairs = (PairsRule)i } },
        new("signOff", "Sign-off",
            [
                new("technician", "The technician who did it.", "A torque counts when its technician has signed it."),
                new("lead-also", "The lead also signs bracket, caliper and wheel.", "The plan has the lead sign each corner before its wheel covers it, and the wheels before the hand-over."),
            ],
            "A second pair of eyes where a wheel can come off.", true) { Read = r => (int)r.SignOff, Write = (r, i) => r with { SignOff = (SignOffRule)i } },
        new("retorque", "Retorque wheels",
            [
                new("recheck", $"After {HouseWords.NutsAgain}.", "The board says when the nuts are due."),
                new("not-needed", "Not needed.", "The board does not remind."),
            ],
            "Cheap insurance.", false) { Read = r => (int)r.Retorque, Write = (r, i) => r with { Retorque = (RetorqueRule)i } },
        new("shownBeforeAlone", "Shown before alone",
            [
                new("not-asked", "Nobody is asked to have shown anything.", "Everybody may do every step."),
                new("asked", "Who has not shown it in practice does it beside somebody.", "Such a step is refused to them until the lead puts them beside somebody on the job."),
            ],
            "Most workshops know their people.", false) { Read = r => (int)r.ShownBeforeAlone, Write = (r, i) => r with { ShownBeforeAlone = (ShownRule)i } },
    ];
}
