using PatientPawl.Core.Reasoning;
using PatientPawl.Core.Vehicles;
using PatientPawl.Core.Workshop;

namespace PatientPawl.Core.Retraction;

/// <summary>How the piston's boot is found.</summary>
public enum BootState
{
    /// <summary>Free all round.</summary>
    Free,
    /// <summary>It winds up with the piston.</summary>
    Wound,
    /// <summary>Torn.</summary>
    Torn,
    /// <summary>Fluid behind it.</summary>
    Wet,
    /// <summary>It bulges after a push.</summary>
    Bulged,
}

/// <summary>What a boot's state means.</summary>
/// <param name="State">The state.</param>
/// <param name="Name">Its name.</param>
/// <param name="Do">What to do.</param>
/// <param name="Stop">True when nothing more is turned or pressed until it is settled.</param>
/// <param name="Condemns">True when the caliper is condemned.</param>
/// <param name="Reasons">Why.</param>
public sealed record BootAnswer(BootState State, string Name, string Do, bool Stop, bool Condemns, Reasons Reasons) : IReasoned;

/// <summary>Says what to do about the boot.</summary>
[Engine]
public static class BootLook
{
    /// <summary>Every state, in the order in which one looks.</summary>
    public static IReadOnlyList<BootState> States { get; } = Enum.GetValues<BootState>();

    /// <summary>Free: go on. Wound: free its lip. Bulged: let the air out. Torn, or wet behind: the caliper is condemned, or resealed where the maker allows one.</summary>
    /// <param name="state">What is seen.</param>
    /// <param name="resealAllowed">What the maker says of a reseal.</param>
    /// <param name="rule">The house rule of the boot's lip.</param>
    /// <exception cref="InputException">A state that is not known.</exception>
    public static BootAnswer Judge(BootState state, Known resealAllowed, BootRule rule)
    {
        var condemns = state is BootState.Torn or BootState.Wet && resealAllowed != Known.Yes;
        var end = condemns ? "The caliper is condemned: a new one, and bleeding." : "A reseal, as the maker allows, with bleeding; else a new caliper.";
        var (name, says) = state switch
        {
            BootState.Free => ("Free all round", rule == BootRule.Greased ? "Go on. A trace of silicone or rubber-safe grease under its lip keeps it from winding up." : "Go on, and see that it does not wind up."),
            BootState.Wound => ("Winds up", "Stop turning. Back half a turn, lift the lip all round, a trace of rubber-safe grease, and look that it stays behind. A wound boot tears."),
            BootState.Torn => ("Torn", $"Stop. Dirt and water are in the bore. {end}"),
            BootState.Wet => ("Wet behind", $"Stop. The seal leaks. {end}"),
            BootState.Bulged => ("Bulges", "It holds air. Lift its lip with a blunt tool and let the air out; it must lie flat again."),
            _ => throw new InputException(new InputError("state", state.ToString(), "free, wound, torn, wet or bulged", "That state of the boot is not known.")),
        };
        return new(state, name, says, state is BootState.Wound or BootState.Torn or BootState.Wet, condemns,
            new Trail("BootLook.Judge").Evidence("Boot", name.ToLowerInvariant(), "practice-boot")
                .Input("Reseal", resealAllowed switch { Known.Yes => "the maker allows one", Known.No => "the maker allows none", _ => "not known: counts as not allowed" })
                .Conclude(says, "practice-boot").WouldChange("What the maker says of a reseal.").Done());
    }
}
