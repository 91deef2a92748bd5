using System.Text;
using PdfSharp.Fonts;
using SkiaSharp;

namespace PatientPawl.Web.Documents;

/// <summary>
/// The typeface of what is printed on the server: it ships with the program, so that a PDF looks the same wherever it was made. DejaVu Sans
/// Condensed has Latin, Greek and Cyrillic letters; its licence stands beside it.
/// </summary>
internal sealed class Typeface : IFontResolver
{
    public const string Family = "DejaVu Sans Condensed";

    private const string Regular = "DejaVuSansCondensed.ttf", Bold = "DejaVuSansCondensed-Bold.ttf";

    // What the typeface has no sign for.
    private const string Missing = "\u25a1";

    private static readonly Lazy<SKTypeface> Drawn = new(() => SKTypeface.FromStream(new MemoryStream(Bytes(Regular))));

    /// <summary>The text with a box for each sign that the typeface lacks: a reader sees that something stood there.</summary>
    public static string Printable(string text)
    {
        using var font = new SKFont(Drawn.Value);
        if (font.ContainsGlyphs(text)) return text;
        var printable = new StringBuilder(text.Length);
        foreach (var rune in text.EnumerateRunes())
            printable.Append(Rune.IsControl(rune) ? " " : font.GetGlyph(rune.Value) == 0 ? Missing : rune.ToString());
        return printable.ToString();
    }

    public FontResolverInfo? ResolveTypeface(string familyName, bool isBold, bool isItalic) => new(isBold ? Bold : Regular);

    public byte[]? GetFont(string faceName) => Bytes(faceName);

    private static byte[] Bytes(string file)
    {
        using var stream = typeof(Typeface).Assembly.GetManifestResourceStream(file)
            ?? throw new InvalidOperationException($"The typeface {file} is not in the program.");
        var bytes = new byte[stream.Length];
        stream.ReadExactly(bytes);
        return bytes;
    }
}
