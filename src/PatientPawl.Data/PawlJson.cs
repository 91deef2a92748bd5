using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using PatientPawl.Core.Jobs;
using UnitsNet;

namespace PatientPawl.Data;

/// <summary>
/// The open formats' JSON: camel case, enumerations in kebab case, and every quantity a number whose unit stands in the
/// property's name (<c>thicknessMm</c>). One place decides, so a file, the database and the API always agree.
/// </summary>
public static class PawlJson
{
    private static readonly (Type Type, string Suffix)[] Units =
    [
        (typeof(Length), "Mm"), (typeof(Torque), "Nm"), (typeof(Volume), "Ml"), (typeof(Angle), "Deg"), (typeof(ElectricPotential), "V"),
        (typeof(ElectricCurrent), "A"), (typeof(ElectricResistance), "Ohm"), (typeof(Duration), "S"), (typeof(Force), "N"), (typeof(ElectricCurrentGradient), "APerS"),
        (typeof(Speed), "Kmh"), (typeof(Mass), "Kg"), (typeof(Temperature), "C"),
    ];

    public static JsonSerializerOptions Options { get; } = Configure(new(JsonSerializerDefaults.Web));

    /// <summary>The quantity types that are written as numbers.</summary>
    public static bool IsQuantity(Type type) => Array.Exists(Units, u => u.Type == (Nullable.GetUnderlyingType(type) ?? type));

    public static JsonSerializerOptions Configure(JsonSerializerOptions o)
    {
        ArgumentNullException.ThrowIfNull(o);
        o.PropertyNamingPolicy = JsonNamingPolicy.CamelCase;
        o.PropertyNameCaseInsensitive = false;
        o.NumberHandling = JsonNumberHandling.Strict;
        o.UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow;
        o.AllowDuplicateProperties = false;
        o.RespectNullableAnnotations = true;
        o.RespectRequiredConstructorParameters = true;
        o.MaxDepth = 32;
        // What is stored has frozen names; what only passes over the API is named after the code.
        foreach (var names in WireNames.Converters) o.Converters.Add(names);
        o.Converters.Add(new JsonStringEnumConverter(JsonNamingPolicy.KebabCaseLower, allowIntegerValues: false));
        o.Converters.Add(new QuantityConverter<Length>(v => Length.FromMillimeters(v), q => q.Millimeters));
        o.Converters.Add(new QuantityConverter<Torque>(v => Torque.FromNewtonMeters(v), q => q.NewtonMeters));
        o.Converters.Add(new QuantityConverter<Volume>(v => Volume.FromMilliliters(v), q => q.Milliliters));
        o.Converters.Add(new QuantityConverter<Angle>(v => Angle.FromDegrees(v), q => q.Degrees));
        o.Converters.Add(new QuantityConverter<ElectricPotential>(v => ElectricPotential.FromVolts(v), q => q.Volts));
        o.Converters.Add(new QuantityConverter<ElectricCurrent>(v => ElectricCurrent.FromAmperes(v), q => q.Amperes));
        o.Converters.Add(new QuantityConverter<ElectricResistance>(v => ElectricResistance.FromOhms(v), q => q.Ohms));
        o.Converters.Add(new QuantityConverter<Duration>(v => Duration.FromSeconds(v), q => q.Seconds));
        o.Converters.Add(new QuantityConverter<Force>(v => Force.FromNewtons(v), q => q.Newtons));
        o.Converters.Add(new QuantityConverter<ElectricCurrentGradient>(v => ElectricCurrentGradient.FromAmperesPerSecond(v), q => q.AmperesPerSecond));
        o.Converters.Add(new QuantityConverter<Speed>(v => Speed.FromKilometersPerHour(v), q => q.KilometersPerHour));
        o.Converters.Add(new QuantityConverter<Mass>(v => Mass.FromKilograms(v), q => q.Kilograms));
        o.Converters.Add(new QuantityConverter<Temperature>(v => Temperature.FromDegreesCelsius(v), q => q.DegreesCelsius));
        o.TypeInfoResolver = new DefaultJsonTypeInfoResolver { Modifiers = { NameUnits, NameEvents, RefuseWhatIsNoFigure } };
        return o;
    }

    private static void NameUnits(JsonTypeInfo info)
    {
        if (info.Kind != JsonTypeInfoKind.Object) return;
        foreach (var property in info.Properties)
        {
            var type = Nullable.GetUnderlyingType(property.PropertyType) ?? property.PropertyType;
            // A list of quantities is named like one of them.
            if (type is { IsGenericType: true } && type.GetGenericTypeDefinition() == typeof(IReadOnlyList<>)) type = type.GetGenericArguments()[0];
            var unit = Array.Find(Units, u => u.Type == type);
            if (unit.Type is not null) property.Name += unit.Suffix;
        }
    }

    private static void NameEvents(JsonTypeInfo info)
    {
        if (info.Type != typeof(JobEvent)) return;
        info.PolymorphismOptions = new() { TypeDiscriminatorPropertyName = "type", UnknownDerivedTypeHandling = JsonUnknownDerivedTypeHandling.FailSerialization };
        foreach (var card in EventCatalogue.All.OrderBy(c => c.Wire, StringComparer.Ordinal)) info.PolymorphismOptions.DerivedTypes.Add(new(card.Event, card.Wire));
    }

    /// <summary>A list of things holds things, and a number has an end: either is told here, and not by whoever stumbles over it.</summary>
    private static void RefuseWhatIsNoFigure(JsonTypeInfo info)
    {
        if (info.Kind != JsonTypeInfoKind.Object) return;
        var lists = info.Properties.Where(p => p.Get is not null && p.PropertyType is { IsGenericType: true } t && t.GetGenericTypeDefinition() == typeof(IReadOnlyList<>) && !t.GetGenericArguments()[0].IsValueType).ToArray();
        var numbers = info.Properties.Where(p => p.Get is not null && (Nullable.GetUnderlyingType(p.PropertyType) ?? p.PropertyType) == typeof(double)).ToArray();
        if (lists.Length + numbers.Length == 0) return;
        var before = info.OnDeserialized;
        info.OnDeserialized = read =>
        {
            before?.Invoke(read);
            foreach (var list in lists)
                if (list.Get!(read) is IEnumerable<object?> items && items.Contains(null)) throw new JsonException("nothing stands where one of the list is wanted", $"$.{list.Name}", null, null);
            foreach (var number in numbers)
                if (number.Get!(read) is double value && !double.IsFinite(value)) throw new JsonException("the number is too large", $"$.{number.Name}", null, null);
        };
    }

    private sealed class QuantityConverter<T>(Func<double, T> from, Func<T, double> to) : JsonConverter<T> where T : struct
    {
        public override T Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options)
        {
            // A quoted number or another unit's word is refused here; the range is the business of the engine.
            if (reader.TokenType != JsonTokenType.Number) throw new JsonException("a plain number is wanted");
            var value = reader.GetDouble();
            return double.IsFinite(value) ? from(value) : throw new JsonException("the number is too large");
        }

        public override void Write(Utf8JsonWriter writer, T value, JsonSerializerOptions options) => writer.WriteNumberValue(Math.Round(to(value), 9));
    }
}
