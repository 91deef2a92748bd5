using System.Globalization;
using System.Text.Json;
using System.Text.Json.Nodes;
using PatientPawl.Core;
using PatientPawl.Core.Vehicles;
using PatientPawl.Data;
using PatientPawl.Web.Hosting;
using PatientPawl.Web.Measuring;

namespace PatientPawl.Web.Vehicles;

/// <summary>A spec sheet read from CSV: the sheet when it is whole, what was understood line by line, and what is wrong with the figures.</summary>
public sealed record SheetRead(SpecSheet? Sheet, IReadOnlyList<CsvLine> Lines, IReadOnlyList<InputError> Errors);

/// <summary>A spec sheet as CSV (RFC 4180): <c>field,value</c>, one field of its JSON a line, <c>torques.0.lowNm</c> for the first fastener.</summary>
internal static class SheetCsv
{
    /// <summary>What kind of value each field of the format holds: a line is told from a slip by it.</summary>
    private static readonly Dictionary<string, JsonValueKind> Known = [];

    public static string Write(SpecSheet sheet) => Csv.Write(["field", "value"], Flat(JsonSerializer.SerializeToNode(sheet, PawlJson.Options), "")
        .Select(f => (string[])[f.Path, Shape(f.Path) == JsonValueKind.String ? Csv.Harmless(f.Value) : f.Value]));

    /// <summary>Reads every line it can, says of the others what is wrong, and checks the whole when nothing is missing.</summary>
    public static SheetRead Read(string text)
    {
        var (csv, separator, first) = Csv.Open(text, 100_000);
        using var _ = csv;
        var root = new JsonObject { ["torques"] = new JsonArray() };
        List<CsvLine> lines = [];
        var heading = false;
        while (lines.Count <= 500 && csv.Read())
        {
            var (field, value, line) = (csv.FieldCount > 0 ? csv.GetString(0) ?? "" : "", csv.FieldCount > 1 ? csv.GetString(1) ?? "" : "", (int)csv.LineNumber);
            if (!heading)
            {
                heading = true;
                if (field.Equals("field", StringComparison.OrdinalIgnoreCase)) continue;
                throw new InputException(new InputError("text", Figure.Shorten(first), "field,value", "The first line names the columns: field,value."));
            }

            lines.Add(Put(root, field, value, separator) is { } wrong ? new(line, false, wrong) : new(line, true, $"{field} {Figure.Shorten(value)}"));
        }

        // What a sheet may do without is not given by saying nothing.
        foreach (var may in new[] { "architecture", "electric", "drum", "fittings", "hydraulics", "padSet" })
            if (!root.ContainsKey(may)) root[may] = null;
        try
        {
            var sheet = root.Deserialize<SpecSheet>(PawlJson.Options) ?? throw new JsonException("empty");
            return new(sheet.Checked(), lines, []);
        }
        catch (InputException e)
        {
            return new(null, lines, e.Errors);
        }
        catch (JsonException e)
        {
            return new(null, lines, [new("text", Figure.Shorten(e.Path ?? "the sheet"), "every field a sheet needs", $"The sheet is not whole: {Missing(e)}")]);
        }
    }

    private static string? Put(JsonObject root, string path, string value, char separator)
    {
        var shape = path.Length == 0 ? null : Shape(path);
        if (shape is null) return $"\"{Figure.Shorten(path)}\" is no field of a spec sheet.";
        JsonNode? node;
        if (value.Length == 0) node = null;
        else if (shape is JsonValueKind.Number)
        {
            if (Csv.Number(value, separator) is not { } number) return $"{path}: \"{Figure.Shorten(value)}\" is not a plain figure.";
            node = Math.Abs(number % 1) < double.Epsilon && Math.Abs(number) < 1e9 ? (JsonNode)(int)number : number;
        }
        else if (shape is JsonValueKind.True)
        {
            if (value.ToLowerInvariant() is not ("yes" or "no" or "true" or "false")) return $"{path}: yes or no.";
            node = value.ToLowerInvariant() is "yes" or "true";
        }
        else node = Csv.Plain(value);

        JsonNode at = root;
        var parts = path.Split('.');
        for (var i = 0; i < parts.Length; i++)
        {
            var last = i == parts.Length - 1;
            if (at is JsonArray array)
            {
                if (!int.TryParse(parts[i], out var index) || index < 0 || index > 40 || index > array.Count) return $"{path}: lines are numbered from 0, one after the other.";
                if (index == array.Count) array.Add(last ? null : new JsonObject());
                if (last) array[index] = node;
                else at = array[index]!;
                continue;
            }

            var inside = (JsonObject)at;
            if (last)
            {
                if (inside.ContainsKey(parts[i])) return $"{path} stands twice.";
                inside[parts[i]] = node;
            }
            else
            {
                inside[parts[i]] ??= int.TryParse(parts[i + 1], out _) ? new JsonArray() : new JsonObject();
                at = inside[parts[i]]!;
            }
        }

        return null;
    }

    private static JsonValueKind? Shape(string path)
    {
        lock (Known)
        {
            if (Known.Count == 0)
                foreach (var (known, kind) in Kinds(typeof(SpecSheet), "")) Known[known] = kind;
        }

        var plain = string.Join('.', path.Split('.').Select(p => int.TryParse(p, out _) ? "#" : p));
        return Known.TryGetValue(plain, out var shape) ? shape : null;
    }

    private static IEnumerable<(string Path, JsonValueKind Kind)> Kinds(Type type, string prefix)
    {
        foreach (var property in PawlJson.Options.GetTypeInfo(type).Properties.Where(p => p.Set is not null || p.AssociatedParameter is not null))
        {
            var t = Nullable.GetUnderlyingType(property.PropertyType) ?? property.PropertyType;
            var path = prefix + property.Name;
            if (t.IsGenericType && t.GetGenericTypeDefinition() == typeof(IReadOnlyList<>))
            {
                var item = t.GetGenericArguments()[0];
                if (item.IsEnum || item == typeof(string)) yield return ($"{path}.#", JsonValueKind.String);
                else
                    foreach (var inner in Kinds(item, $"{path}.#.")) yield return inner;
            }
            else if (t == typeof(string) || t.IsEnum) yield return (path, JsonValueKind.String);
            else if (t == typeof(bool)) yield return (path, JsonValueKind.True);
            else if (t.IsValueType) yield return (path, JsonValueKind.Number);
            else
                foreach (var inner in Kinds(t, path + ".")) yield return inner;
        }
    }

    private static IEnumerable<(string Path, string Value)> Flat(JsonNode? node, string path)
    {
        switch (node)
        {
            case JsonObject o:
                foreach (var (key, value) in o)
                    foreach (var line in Flat(value, path.Length == 0 ? key : $"{path}.{key}")) if (Shape(line.Path) is not null) yield return line;
                break;
            case JsonArray a:
                for (var i = 0; i < a.Count; i++)
                    foreach (var line in Flat(a[i], $"{path}.{i}")) yield return line;
                break;
            case null:
                if (Shape(path) is not null) yield return (path, "");
                break;
            default:
                yield return (path, node.GetValueKind() is JsonValueKind.True ? "yes" : node.GetValueKind() is JsonValueKind.False ? "no" : node.ToString());
                break;
        }
    }

    private static string Missing(JsonException e) => e.Message.Contains("missing required", StringComparison.Ordinal) ? e.Message[(e.Message.LastIndexOf(':') + 1)..].Trim() + " is missing." : "a word is not one the format knows.";
}
