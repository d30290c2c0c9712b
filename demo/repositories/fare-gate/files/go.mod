module quillhaven.example/faregate

go 1.22
