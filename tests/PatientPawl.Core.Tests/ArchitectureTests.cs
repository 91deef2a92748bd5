using System.Reflection;
using NetArchTest.Rules;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Reasoning;
using PatientPawl.Core.Workshop;

namespace PatientPawl.Core.Tests;

/// <summary>What Core may be: pure, on its own, and able to say why.</summary>
public class ArchitectureTests
{
    private static readonly Assembly Core = typeof(Checks).Assembly;
    private static readonly Type[] Public = [.. Core.GetExportedTypes()];

    [Fact]
    public void Core_references_a_units_library_and_the_runtime_only() =>
        Core.GetReferencedAssemblies().Select(a => a.Name!).Where(n => !n.StartsWith("System", StringComparison.Ordinal) && n != "netstandard").ShouldBe(["UnitsNet"], ignoreOrder: true);

    [Theory]
    [InlineData("System.IO")]
    [InlineData("System.Net")]
    [InlineData("System.Data")]
    [InlineData("System.Text.Json")]
    [InlineData("System.Diagnostics.Process")]
    [InlineData("System.Random")]
    public void Core_does_no_io(string dependency) =>
        Types.InAssembly(Core).ShouldNot().HaveDependencyOn(dependency).GetResult().FailingTypeNames.ShouldBeNull();

    [Fact]
    public void Core_never_asks_the_clock()
    {
        var calls = Core.GetTypes().SelectMany(t => t.GetMethods(BindingFlags.Instance | BindingFlags.Static | BindingFlags.Public | BindingFlags.NonPublic | BindingFlags.DeclaredOnly))
            .Select(m => m.GetMethodBody()?.GetILAsByteArray() is { } il ? (m, il) : default).Where(x => x.il is not null)
            .SelectMany(x => Calls(x.m.Module, x.il)).Select(c => $"{c.DeclaringType?.FullName}.{c.Name}").ToHashSet();
        calls.ShouldContain("System.Math.Max");
        calls.ShouldNotContain(c => c.StartsWith("System.DateTime", StringComparison.Ordinal) && (c.EndsWith("Now", StringComparison.Ordinal) || c.EndsWith("Today", StringComparison.Ordinal)));
    }

    [Fact]
    public void Every_engine_answers_with_its_reasoning()
    {
        var engines = Public.Where(t => t.GetCustomAttribute<EngineAttribute>() is not null).ToArray();
        engines.Length.ShouldBeGreaterThanOrEqualTo(8);
        foreach (var method in engines.SelectMany(t => t.GetMethods(BindingFlags.Static | BindingFlags.Public | BindingFlags.DeclaredOnly).Where(m => !m.IsSpecialName)))
            typeof(IReasoned).IsAssignableFrom(method.ReturnType).ShouldBeTrue($"{method.DeclaringType!.Name}.{method.Name}");
    }

    [Fact]
    public void Every_reasoned_result_comes_from_a_class_marked_as_an_engine()
    {
        var makers = Public.Where(t => t.IsAbstract && t.IsSealed).SelectMany(t => t.GetMethods(BindingFlags.Static | BindingFlags.Public | BindingFlags.DeclaredOnly))
            .Where(m => typeof(IReasoned).IsAssignableFrom(m.ReturnType)).Select(m => m.DeclaringType!).Distinct();
        makers.ShouldAllBe(t => t.GetCustomAttribute<EngineAttribute>() != null);
    }

    [Fact]
    public void Public_records_are_immutable()
    {
        var settable = Public.Where(t => t.IsClass && t.GetMethod("<Clone>$") is not null).SelectMany(t => t.GetProperties())
            .Where(p => p.SetMethod is { IsPublic: true } set && !set.ReturnParameter.GetRequiredCustomModifiers().Contains(typeof(System.Runtime.CompilerServices.IsExternalInit)));
        settable.Select(p => $"{p.DeclaringType!.Name}.{p.Name}").ShouldBeEmpty();
    }

    [Fact]
    public void A_bare_double_crosses_the_boundary_only_where_no_quantity_exists()
    {
        // Ratios, percentages, counts and values whose unit is chosen beside them.
        string[] allowed = ["Turns", "LevelAfter", "LevelPercent", "AtTheBoltLbfFt", "SettingLbfFt", "PermissibleDeviation", "Value", "Low", "High", "BatteryVolts",
            // Temperatures and expansion: no quantity of the open formats carries them, so the unit stands in the name.
            "DrumCelsius", "GaugeCelsius", "DifferenceDoubtKelvin", "HalfWidthKelvin", "ExpansionPerKelvin", "Celsius", "PercentLeft", "ContactShare", "LastsToNext",
            "DryCelsius", "WetCelsius", "MarginCelsius", "HottestCelsius", "WaterPercent", "LevelDrawn", "LevelHome", "LevelFinal", "TurnsToGo", "TurnsToGoError", "TurnsAtTarget", "TurnsNow", "TurnsHome", "SlotAtTurns", "EffortRatio",
            // Grades, shares, ratios and chances; kelvin and degrees as above; a rate has no quantity of its own.
            "AmbientCelsius", "RearPercent", "BeforeCelsius", "AfterCelsius", "RiseKelvin", "CeilingCelsius", "LowCelsius", "HighCelsius", "HillPercent", "SidesPercent", "LeftCelsius", "RightCelsius", "AirCelsius",
            "AskedGradePercent", "RatioPercent", "ApartPercent", "KmPerDay", "Within30", "Within60", "Within90",
            // Deviations of a wrench, as shares and per cent.
            "CertifiedDeviation", "InUse", "UncertaintyPercent", "AsFoundPercent", "AsLeftPercent", "DriftPercentAYear",
            // A form's ranges, whose unit stands beside them.
            "Least", "Most",
            // N m/A and ratios: no quantity exists.
            "TorqueConstant", "GearRatio", "Efficiency"];
        var doubles = Public.Where(t => t.Namespace != "PatientPawl.Core").SelectMany(t => t.GetProperties(BindingFlags.Instance | BindingFlags.Public | BindingFlags.DeclaredOnly))
            .Where(p => (Nullable.GetUnderlyingType(p.PropertyType) ?? p.PropertyType) == typeof(double)).Select(p => p.Name).Distinct();
        doubles.Except(allowed).ShouldBeEmpty();
    }

    [Fact]
    public void Events_are_a_closed_family()
    {
        typeof(JobEvent).IsAbstract.ShouldBeTrue();
        Public.Where(t => t.IsSubclassOf(typeof(JobEvent))).ShouldAllBe(t => t.IsSealed);
    }

    [Fact]
    public void Reasoning_names_sources_that_exist()
    {
        var plan = Planner.Make(PlanSetup.For(PatientPawl.Core.Identification.Architecture.HatShoes, JobScope.Pads), PlanSetup.For(PatientPawl.Core.Identification.Architecture.HatShoes, JobScope.Pads).Start());
        plan.Reasons.Lines.Select(l => l.SourceId).OfType<string>().Distinct().ShouldAllBe(id => Sources.Get(id).Id == id);
        Should.Throw<KeyNotFoundException>(() => Sources.Get("no-such-source"));
        Sources.All.Select(s => s.Id).Distinct().Count().ShouldBe(Sources.All.Count);
    }

    private static IEnumerable<MethodBase> Calls(Module module, byte[] il)
    {
        for (var i = 0; i + 4 < il.Length; i++)
        {
            // call and callvirt carry a method token.
            if (il[i] is not (0x28 or 0x6F)) continue;
            MethodBase? method = null;
            try
            {
                method = module.ResolveMethod(BitConverter.ToInt32(il, i + 1));
            }
            catch (Exception e) when (e is ArgumentException or BadImageFormatException)
            {
                // Not a token after all: an operand that looks like one.
            }

            if (method is not null) yield return method;
        }
    }

    [Fact]
    public void Every_engine_stands_in_the_docs_with_checks_that_exist()
    {
        var text = File.ReadAllText(Path.Combine(Repository(), "docs", "sources.md"));
        var engines = typeof(Planner).Assembly.GetTypes().Where(t => t.GetCustomAttributes(false).Any(x => x.GetType().Name == "EngineAttribute")).Select(t => t.Name).Order(StringComparer.Ordinal).ToArray();
        var rows = text.Split('\n').Where(l => l.StartsWith("| `", StringComparison.Ordinal) && l.Contains("Tests`", StringComparison.Ordinal)).Select(l => l.Split('|')).ToArray();
        rows.Select(r => r[1].Trim(' ', '`')).Order(StringComparer.Ordinal).ShouldBe(engines);
        var checks = typeof(ArchitectureTests).Assembly.GetTypes().Select(t => t.Name).ToHashSet();
        rows.SelectMany(r => r[2].Split(',')).Select(c => c.Trim(' ', '`')).Where(c => !checks.Contains(c)).ShouldBeEmpty();
    }

    internal static string Repository()
    {
        var folder = AppContext.BaseDirectory;
        while (!Directory.Exists(Path.Combine(folder, "docs"))) folder = Path.GetDirectoryName(folder) ?? throw new DirectoryNotFoundException("No docs above the tests.");
        return folder;
    }
}
