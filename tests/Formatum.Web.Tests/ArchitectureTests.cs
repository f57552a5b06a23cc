using System.Text.RegularExpressions;
using System.Xml.Linq;

namespace Formatum.Web.Tests;

public class ArchitectureTests
{
    private static readonly Dictionary<string, string[]> Allowed = new()
    {
        ["Formatum.Core"] = [],
        ["Formatum.Documents"] = ["Formatum.Imaging"],
        ["Formatum.Imaging"] = ["Formatum.Core"],
        ["Formatum.Output"] = ["Formatum.Imaging"],
        ["Formatum.Storage"] = ["Formatum.Core"],
        // It judges what the others make, and knows nothing of them.
        ["Formatum.PrintShop"] = [],
        ["Formatum.Demo"] = ["Formatum.Storage", "Formatum.Imaging"],
        ["Formatum.Web"] = ["Formatum.Documents", "Formatum.Storage", "Formatum.Output", "Formatum.Demo"],
    };

    [Fact]
    public void Dependencies_run_one_way_and_the_core_has_no_packages()
    {
        var projects = Directory.GetFiles(Path.Combine(TestServer.Root, "src"), "*.csproj", SearchOption.AllDirectories);
        projects.Select(p => Path.GetFileNameWithoutExtension(p)!).Order().ShouldBe(Allowed.Keys.Order());
        foreach (string project in projects)
        {
            var document = XDocument.Load(project);
            var references = document.Descendants("ProjectReference").Select(r => Path.GetFileNameWithoutExtension((string)r.Attribute("Include")!));
            references.ShouldBe(Allowed[Path.GetFileNameWithoutExtension(project)], ignoreOrder: true, project);
        }
        XDocument.Load(projects.Single(p => p.EndsWith("Formatum.Core.csproj", StringComparison.Ordinal))).Descendants("PackageReference").ShouldBeEmpty();
        var core = typeof(Core.Publications.Publication).Assembly.GetReferencedAssemblies().Select(a => a.Name!).ToList();
        core.ShouldAllBe(name => name.StartsWith("System.", StringComparison.Ordinal));
        core.ShouldNotContain("System.Net.Http");
    }

    /// <summary>The folders of a project, each with those it may use.</summary>
    private static readonly Dictionary<string, Dictionary<string, string[]>> Folders = new()
    {
        ["Formatum.Core"] = new()
        {
            ["Checks"] = [],
            ["Geometry"] = ["Checks"],
            ["Colours"] = ["Checks"],
            ["Settings"] = ["Checks", "Geometry"],
            ["Fitting"] = ["Checks", "Geometry", "Settings"],
            ["Stories"] = ["Checks", "Colours", "Geometry", "Settings"],
            ["Publications"] = ["Checks", "Colours", "Fitting", "Geometry", "Settings", "Stories"],
            ["Typesetting"] = ["Colours", "Geometry", "Stories"],
            ["Arranging"] = ["Checks", "Fitting", "Geometry", "Publications"],
            ["Filling"] = ["Checks", "Fitting", "Geometry", "Publications", "Stories"],
            ["Imposing"] = ["Checks", "Geometry", "Publications"],
            ["Composing"] = ["Colours", "Geometry", "Publications", "Stories", "Typesetting"],
            ["Edits"] = ["Arranging", "Checks", "Colours", "Filling", "Fitting", "Geometry", "Publications", "Settings", "Stories"],
            ["Comparing"] = ["Geometry", "Publications"],
            ["Checking"] = ["Checks", "Colours", "Composing", "Edits", "Filling", "Fitting", "Geometry", "Publications", "Settings", "Stories", "Typesetting"],
        },
        ["Formatum.Web"] = new()
        {
            ["Hosting"] = [],
            ["Wording"] = [],
            ["Pictures"] = ["Hosting", "Wording"],
            ["Links"] = ["Hosting", "Pictures"],
            ["Fonts"] = ["Pictures"],
            ["Colours"] = ["Wording"],
            ["Checking"] = ["Hosting", "Links", "Wording"],
            ["Outputs"] = ["Checking", "Hosting", "Links", "Wording"],
            ["Comparing"] = ["Hosting", "Links", "Outputs", "Pictures"],
            ["Desk"] = ["Checking", "Hosting", "Links", "Outputs", "Wording"],
            ["Rules"] = ["Desk", "Links", "Wording"],
            ["Styles"] = ["Rules", "Wording"],
            ["Looks"] = ["Colours", "Rules", "Wording"],
            ["House"] = ["Colours"],
            ["Api"] = ["Checking", "Colours", "Comparing", "Desk", "Fonts", "Hosting", "Links", "Outputs", "Pictures", "Wording"],
            ["Pages"] = ["Checking", "Colours", "Comparing", "Desk", "Fonts", "Hosting", "House", "Links", "Looks", "Outputs", "Pictures", "Rules", "Styles",
                "Wording"],
        },
    };

    [Theory]
    [InlineData("Formatum.Core")]
    [InlineData("Formatum.Web")]
    public void Folders_use_only_those_that_come_before_them(string project)
    {
        var allowed = Folders[project];
        string root = Path.Combine(TestServer.Root, "src", project);
        var found = Directory.GetDirectories(root).Select(d => Path.GetFileName(d)!).Where(d => d is not ("bin" or "obj" or "wwwroot" or "Properties"))
            .ToList();
        found.Except(allowed.Keys).ShouldBeEmpty("Every folder has its place in the order.");
        var wrong = from folder in found
                    from file in Directory.EnumerateFiles(Path.Combine(root, folder), "*.cs", SearchOption.AllDirectories)
                    from used in UsedBy(project, File.ReadAllText(file), allowed.Keys)
                    where used != folder && !allowed[folder].Contains(used)
                    select $"{folder}/{Path.GetFileName(file)} uses {used}";
        wrong.ShouldBeEmpty();
    }

    /// <summary>The longest line of .editorconfig; what a tool wrote (migrations, what the compiler makes) is as it is.</summary>
    [Fact]
    public void No_line_is_longer_than_160_characters()
    {
        string[] kinds = ["*.cs", "*.cshtml", "*.js"];
        var files = kinds.SelectMany(k => Directory.EnumerateFiles(TestServer.Root, k, SearchOption.AllDirectories))
            .Where(f => !Regex.IsMatch(f, @"[\\/](obj|bin|node_modules|Migrations|lib)[\\/]"));
        var longer = from file in files
                     from line in File.ReadLines(file).Select((text, i) => (text, Number: i + 1))
                     where line.text.Length > 160
                     select $"{Path.GetFileName(file)}:{line.Number} has {line.text.Length}";
        longer.ShouldBeEmpty();
    }

    /// <summary>The folders a file names: by using their namespace, or by writing it before a type.</summary>
    private static IEnumerable<string> UsedBy(string project, string code, IEnumerable<string> folders)
    {
        string plain = Regex.Replace(code, "//.*", "");
        foreach (string folder in folders)
            if (Regex.IsMatch(plain, $@"using (static )?{Regex.Escape(project)}\.{folder}\b") || Regex.IsMatch(plain, $@"(?<![\w.]){folder}\.[A-Z]\w*[.(<? ]")
                && !Regex.IsMatch(plain, $@"\b\w+ {folder}\b *(=>|\{{|;|,|\))"))
                yield return folder;
    }
}
