using System.Globalization;
using PdfSharp.Drawing;
using PdfSharp.Fonts;
using PdfSharp.Pdf;

namespace PatientPawl.Web.Documents;

/// <summary>A sheet's size.</summary>
public enum PaperSize
{
    /// <summary>210 mm by 297 mm, ISO 216.</summary>
    A4,
    /// <summary>8.5 in by 11 in, ANSI/ASME Y14.1.</summary>
    Letter,
}

/// <summary>Letters on sheets: text that wraps, tables that go over to the next page with their heading, a foot on each.</summary>
internal sealed class Paper : IDisposable
{
    // All in points, 72 to the inch.
    private const double Margin = 42, Leading = 1.3, FootRoom = 24, CellGap = 6;

    private static readonly XBrush Ink = new XSolidBrush(XColor.FromArgb(0x12, 0x21, 0x1d));
    private static readonly XBrush Soft = new XSolidBrush(XColor.FromArgb(0x48, 0x59, 0x53));
    private static readonly XPen Rule = new(XColor.FromArgb(0xb8, 0xc4, 0xbe), 0.6);
    private static readonly XPen Heavy = new(XColor.FromArgb(0x12, 0x21, 0x1d), 1.4);

    private readonly PdfDocument _document = new();
    private readonly XSize _size;
    private XGraphics _on;

    // PDFsharp asks one resolver for all documents.
    static Paper() => GlobalFontSettings.FontResolver ??= new Typeface();

    public Paper(PaperSize size, string title)
    {
        _size = size == PaperSize.A4 ? new(595.28, 841.89) : new(612, 792);
        _document.Info.Title = title;
        _document.Info.Creator = "Patient Pawl";
        _document.Language = "en-GB";
        _document.ViewerPreferences.DisplayDocTitle = true;
        _on = Turn();
    }

    /// <summary>What is left of a line's width, from margin to margin.</summary>
    public double Width => _size.Width - 2 * Margin;

    // Where the foot begins.
    private double Floor => _size.Height - Margin - FootRoom;

    /// <summary>Where the next line begins, from the top.</summary>
    public double Y { get; private set; }

    private static XFont Font(double points, bool bold = false) =>
        new(Typeface.Family, points, bold ? XFontStyleEx.Bold : XFontStyleEx.Regular, new XPdfFontOptions(PdfFontEncoding.Unicode));

    public void Text(string text, double points = 9.5, bool bold = false, double? width = null, bool soft = false)
    {
        var font = Font(points, bold);
        foreach (var line in Wrapped(text, font, width ?? Width))
        {
            Room(points * Leading);
            Line(line, font, Margin, Y, soft);
            Y += points * Leading;
        }
    }

    public void Heading(string text)
    {
        // A heading never stands alone at the foot of a page.
        Room(60);
        Y += 10;
        Text(text, 13, bold: true);
        Y += 2;
    }

    public void Fact(string name, string says)
    {
        const double NameWidth = 84, Points = 9.5;
        var (font, lines) = (Font(Points), Wrapped(says, Font(Points), Width - NameWidth));
        for (var i = 0; i < lines.Count; i++)
        {
            Room(Points * Leading);
            if (i == 0) Line(name, font, Margin, Y, soft: true);
            Line(lines[i], font, Margin + NameWidth, Y);
            Y += Points * Leading;
        }
    }

    public void Ruled()
    {
        Y += 4;
        _on.DrawLine(Heavy, Margin, Y, _size.Width - Margin, Y);
        Y += 5;
    }

    /// <summary>
    /// A row of cells, each as wide as its share; where it does not fit, the next page begins with the heading again. A row that is higher than
    /// a page goes on over the next.
    /// </summary>
    public void Row(IReadOnlyList<string> cells, IReadOnlyList<int> shares, Action? headingAgain, bool bold = false, bool struck = false,
        bool lastBold = false)
    {
        const double Points = 8, Step = Points * Leading, Gap = 4;
        var unit = Width / shares.Sum();
        var laid = cells.Select((cell, i) =>
        {
            var font = Font(Points, bold || lastBold && i == cells.Count - 1);
            return (Font: font, Lines: Wrapped(cell, font, shares[i] * unit - CellGap));
        }).ToArray();
        var lines = laid.Max(l => l.Lines.Count);
        if (Room(Math.Min(lines * Step + Gap, Floor - Margin))) headingAgain?.Invoke();
        for (var from = 0; from < lines;)
        {
            var fit = Math.Clamp((int)((Floor - Y - Gap) / Step), 1, lines - from);
            _on.DrawLine(Rule, Margin, Y, _size.Width - Margin, Y);
            var x = Margin;
            for (var i = 0; i < laid.Length; i++)
            {
                var y = Y + Gap / 2;
                foreach (var line in laid[i].Lines.Skip(from).Take(fit))
                {
                    Line(line, laid[i].Font, x, y, struck);
                    var middle = y + Points * 0.65;
                    if (struck) _on.DrawLine(Rule, x, middle, x + _on.MeasureString(line, laid[i].Font).Width, middle);
                    y += Step;
                }

                x += shares[i] * unit;
            }

            Y += fit * Step + Gap;
            from += fit;
            if (from < lines) _on = Turn();
        }
    }

    /// <summary>Pictures side by side, two in a row, each with what it shows.</summary>
    public void Pictures(IReadOnlyList<(byte[] Jpeg, string Caption, string Says)> pictures)
    {
        const double Height = 170;
        var width = (Width - 12) / 2;
        foreach (var pair in pictures.Chunk(2))
        {
            var captions = pair
                .Select(p => (Title: Wrapped(p.Caption, Font(9, true), width), Says: Wrapped(p.Says, Font(8), width))).ToArray();
            var words = captions.Max(c => c.Title.Count * 9 + c.Says.Count * 8) * Leading;
            Room(Height + words + 10);
            for (var i = 0; i < pair.Length; i++)
            {
                var x = Margin + i * (width + 12);
                using var image = XImage.FromStream(new MemoryStream(pair[i].Jpeg));
                var scale = Math.Min(width / image.PixelWidth, Height / image.PixelHeight);
                _on.DrawImage(image, x, Y, image.PixelWidth * scale, image.PixelHeight * scale);
                var y = Y + Height + 2;
                foreach (var line in captions[i].Title)
                {
                    Line(line, Font(9, true), x, y);
                    y += 9 * Leading;
                }

                foreach (var line in captions[i].Says)
                {
                    Line(line, Font(8), x, y, soft: true);
                    y += 8 * Leading;
                }
            }

            Y += Height + words + 10;
        }
    }

    /// <summary>A square of modules at the upper right of the first page.</summary>
    public void Square(IReadOnlyList<System.Collections.BitArray> modules, double side)
    {
        var unit = side / modules.Count;
        for (var row = 0; row < modules.Count; row++)
            for (var column = 0; column < modules.Count; column++)
                if (modules[row][column])
                    _on.DrawRectangle(Ink, _size.Width - Margin - side + column * unit, Margin + row * unit, unit + 0.05, unit + 0.05);
    }

    public byte[] Finish(string foot)
    {
        _on.Dispose();
        for (var i = 0; i < _document.PageCount; i++)
        {
            _on = XGraphics.FromPdfPage(_document.Pages[i]);
            var says = string.Create(CultureInfo.InvariantCulture, $"{foot}, page {i + 1} of {_document.PageCount}");
            Line(says, Font(8), Margin, _size.Height - Margin, soft: true);
            _on.Dispose();
        }

        using var bytes = new MemoryStream();
        _document.Save(bytes);
        return bytes.ToArray();
    }

    public void Dispose()
    {
        _on.Dispose();
        _document.Dispose();
    }

    private bool Room(double height)
    {
        if (Y + height <= Floor) return false;
        _on = Turn();
        return true;
    }

    private XGraphics Turn()
    {
        _on?.Dispose();
        var page = _document.AddPage();
        (page.Width, page.Height) = (XUnit.FromPoint(_size.Width), XUnit.FromPoint(_size.Height));
        Y = Margin;
        return XGraphics.FromPdfPage(page);
    }

    private void Line(string text, XFont font, double x, double y, bool soft = false) =>
        _on.DrawString(text, font, soft ? Soft : Ink, new XPoint(x, y), XStringFormats.TopLeft);

    private List<string> Wrapped(string text, XFont font, double width)
    {
        List<string> lines = [];
        var line = "";
        foreach (var word in Typeface.Printable(text).Split([' ', '\n', '\r', '\t'], StringSplitOptions.RemoveEmptyEntries))
        {
            var rest = word;
            if (line.Length > 0 && _on.MeasureString($"{line} {rest}", font).Width <= width)
            {
                line = $"{line} {rest}";
                continue;
            }

            if (line.Length > 0) lines.Add(line);
            // What is wider than its place is broken where it must be.
            while (rest.Length > 1 && _on.MeasureString(rest, font).Width > width)
            {
                var fits = rest.Length - 1;
                while (fits > 1 && _on.MeasureString(rest[..fits], font).Width > width) fits--;
                lines.Add(rest[..fits]);
                rest = rest[fits..];
            }

            line = rest;
        }

        if (line.Length > 0 || lines.Count == 0) lines.Add(line);
        return lines;
    }
}
