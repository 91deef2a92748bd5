using PatientPawl.Core.Measuring;
using PatientPawl.Core.Reasoning;

namespace PatientPawl.Core.Shoes;

/// <summary>Reads the maximum diameter stamped on a hat.</summary>
[Engine]
public static class MaximumStamp
{
    /// <summary>
    /// Reads stampings such as "MAX DIA 191.00 MM", "MAX 7.52 IN", "Ø 191" and decimal commas. Without a unit, 50 to 500 is
    /// millimetres and 2 to 20 is inches, and that is said.
    /// </summary>
    /// <exception cref="InputException">No figure, more than one, or no drum's size.</exception>
    public static StampRead Read(string? typed) => Stamp.Read("MaximumStamp.Read", typed, 50, 500, 20.001, "drum", "MAX DIA 191.00 MM");
}
